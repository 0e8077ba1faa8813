import fc from 'fast-check'
import { describe, expect } from 'vitest'
import { ours, practice, publishedIn } from '../../tests/support/figures'
import { cases } from '../../tests/support/laws'
import { planFrom, portOf as port, runOf as run } from '../../tests/support/shorthand'
import type { Plan } from '../plan/plan'
import { assess } from './assess'
import type { Finding } from './checks'
import { severity } from './finding'
import { sentence } from './sentences'

const cable = (id: string, more: object = {}, evidence: object = { amps: 5 }) => ({
  id,
  tag: id.toUpperCase(),
  ends: [{ connector: 'type-c' }, { connector: 'type-c' }],
  length: 1,
  evidence: [{ basis: 'claimed', on: '2026-01-01', grade: 'gen1', ...evidence }],
  ...more,
})
const charger = (gives: number, more: object = {}) => ({
  id: 'charger',
  name: 'Charger',
  kind: 'charger',
  ports: [port('c', 'type-c', { role: 'host', gives }), port('b', 'type-c', { role: 'host', gives: 18 })],
  ...more,
})
const laptop = (takes: number) => ({
  id: 'laptop',
  name: 'Laptop',
  kind: 'computer',
  ports: [port('c', 'type-c', { takes, usb: 'gen1x1', gives: 4.5 }), port('d', 'type-c', { takes, usb: 'gen1x1' })],
})
const power = (watts: number, from = 'charger', id = 'power') => ({ id, kind: 'power', from, to: 'laptop', watts })
const find = (plan: Plan, id: string, check: Finding['check']): Finding | undefined =>
  assess(plan)
    .runs.find((each) => each.id === id)
    ?.findings.find((finding) => finding.check === check)
const said = (plan: Plan, id: string, check: Finding['check']): string => {
  const found = find(plan, id, check)
  return found ? sentence(found) : ''
}

describe('what arrives', () => {
  practice('an older plug anywhere passes 5 V, and the plug is to blame', () => {
    const plan = planFrom({
      devices: [charger(100), laptop(60)],
      cables: [
        cable('c1', { ends: [{ connector: 'type-c' }, { connector: 'type-a' }] }),
        cable('c2', { ends: [{ connector: 'type-a', gender: 'socket' }, { connector: 'type-c' }] }),
      ],
      runs: [run('r', 'charger/c', 'laptop/c', 'c1', 'c2')],
      needs: [power(60)],
    })
    expect(find(plan, 'r', 'current')).toMatchObject({ grade: 'blocked', have: 15 })
    expect(said(plan, 'r', 'current')).toContain('older plug')
  })
  practice('the neighbours in a pool are to blame where alone it would do', () => {
    const plan = planFrom({
      devices: [
        charger(100, { pool: { kind: 'drops', together: { c: 60, b: 18 } } }),
        laptop(96),
        { id: 'other', name: 'Other', kind: 'other', ports: [port('c', 'type-c', { takes: 18 })] },
      ],
      cables: [cable('c1'), cable('c2')],
      runs: [run('r', 'charger/c', 'laptop/c', 'c1'), run('s', 'charger/b', 'other/c', 'c2')],
      needs: [power(96)],
    })
    expect(find(plan, 'r', 'current')).toMatchObject({ have: 60, need: 96, part: { id: 'charger/c' } })
    expect(said(plan, 'r', 'current')).toContain('while b is in use too, and 100 W alone')
  })
  practice('a hub that is charged through keeps some: of 100 W it passes 95 on', () => {
    const hub = (keeps: number) => ({
      id: 'hub',
      name: 'Hub',
      kind: 'hub',
      keeps,
      ports: [
        port('in', 'type-c', { takes: 100 }),
        port('up', 'type-c', { role: 'device', gives: 100, usb: 'gen1x1' }),
      ],
    })
    const plan = (keeps: number, watts: number) =>
      planFrom({
        devices: [charger(100), laptop(100), hub(keeps)],
        cables: [cable('c1'), cable('c2')],
        runs: [run('in', 'charger/c', 'hub/in', 'c1'), run('up', 'laptop/c', 'hub/up', 'c2')],
        needs: [power(watts)],
      })
    expect(find(plan(5, 95), 'up', 'current')).toMatchObject({ grade: 'clear', have: 95 })
    expect(find(plan(5, 96), 'up', 'current')).toMatchObject({ have: 95, need: 96 })
    expect(said(plan(5, 96), 'up', 'current')).toContain('has no power supply and can pass on 95 W')
    // what it keeps is asked of the charger as well
    expect(find(plan(5, 95), 'in', 'current')).toMatchObject({ grade: 'clear', need: 100 })
  })
  practice(
    'of two supplies the stronger is taken, and the weaker blocks nothing: a display feeds 57 W to an 87 W laptop beside its charger',
    () => {
      const plan = planFrom({
        devices: [
          charger(100),
          laptop(87),
          {
            id: 'display',
            name: 'Display',
            kind: 'display',
            ports: [port('c', 'type-c', { role: 'device', gives: 57 })],
          },
        ],
        cables: [cable('c1'), cable('c2')],
        runs: [run('r', 'charger/c', 'laptop/c', 'c1'), run('s', 'laptop/d', 'display/c', 'c2')],
        needs: [power(87), power(87, 'display', 'fed')],
      })
      expect(find(plan, 's', 'current')).toMatchObject({ grade: 'note' })
      const alone = {
        ...plan,
        runs: plan.runs.filter(({ id }) => id === 's'),
        needs: plan.needs.filter(({ id }) => id === 'fed'),
      }
      expect(find(alone, 's', 'current')).toMatchObject({ grade: 'tight', have: 57 })
    },
  )
})

describe('mains', () => {
  const at = (mains: boolean | 'not known', device: object) =>
    planFrom({
      places: [{ id: 'there', name: 'Ceiling', mains }],
      devices: [{ ...charger(100), place: 'there', ...device }, laptop(60)],
      cables: [cable('c1')],
      runs: [run('r', 'charger/c', 'laptop/c', 'c1')],
      needs: [power(60)],
    })
  practice('is there, is not there, or nobody knows', () => {
    expect(find(at(true, {}), 'r', 'current')).toMatchObject({ grade: 'clear' })
    expect(find(at(false, {}), 'r', 'current')).toMatchObject({ grade: 'blocked', have: 0 })
    expect(find(at('not known', {}), 'r', 'current')).toMatchObject({ grade: 'clear' })
    expect(said(at('not known', {}), 'r', 'far-end power')).toContain('Nobody has said yet')
    expect(find(at(true, {}), 'r', 'far-end power')).toBeUndefined()
  })
  practice.each(['charger', 'dock', 'hub', 'extender'])('a %s needs it, unless it lives on the bus', (kind) => {
    expect(find(at(false, { kind }), 'r', 'far-end power')).toMatchObject({ grade: 'blocked' })
    if (kind !== 'charger') expect(find(at(false, { kind, busPowered: true }), 'r', 'far-end power')).toBeUndefined()
  })
  ours('a plan that says nothing of it has it, as plans always had', () => {
    expect(planFrom({ places: [{ id: 'p', name: 'P' }] }).places[0]?.mains).toBe(true)
  })
})

describe('volts at the device', () => {
  const hub = (id: string) => ({
    id,
    name: id,
    kind: 'hub',
    busPowered: true,
    ports: [
      port('up', 'type-b', { role: 'device', usb: 'gen1x1' }),
      port('a', 'type-a', { role: 'host', usb: 'gen1x1', gives: 4.5 }),
    ],
  })
  const ab = { ends: [{ connector: 'type-a' }, { connector: 'type-b' }] }
  const plan = (length: number, hubs: 0 | 1 | 2, watts = 3) => {
    const names = ['one', 'two'].slice(0, hubs)
    const rows = [...names, 'camera']
    return planFrom({
      devices: [
        {
          id: 'host',
          name: 'Host',
          kind: 'computer',
          ports: [port('a', 'type-a', { role: 'host', usb: 'gen1x1', gives: 7.5 })],
        },
        ...names.map(hub),
        {
          id: 'camera',
          name: 'Camera',
          kind: 'camera',
          ports: [port('up', 'type-b', { role: 'device', usb: 'gen1x1' })],
        },
      ],
      cables: rows.map((_, at) => cable(`c${at}`, { ...ab, length, awg: 28 }, { amps: 3 })),
      runs: rows.map((name, at) => run(`r${at}`, at === 0 ? 'host/a' : `${rows[at - 1]}/a`, `${name}/up`, `c${at}`)),
      needs: [{ id: 'n', kind: 'camera', from: 'camera', to: 'host', rate: 1e8, watts }],
    })
  }
  const volts = (length: number, hubs: 0 | 1 | 2, watts?: number) => {
    const found = assess(plan(length, hubs, watts))
      .runs.at(-1)
      ?.findings.filter(({ check, reason }) => check === 'volts lost' && reason.code === 'volts-arrive')
    return found?.[0]
  }
  publishedIn('handbook table: AWG 28 has 212.9 ohm a kilometre')('are what the wire leaves', () => {
    // 0.6 A over 1 m of supply wire and twice the copper on ground
    expect(volts(1, 0)?.have).toBeCloseTo(5 - 0.6 * 0.2129 * 1.5, 3)
    expect(volts(1, 0)?.grade).toBe('clear')
  })
  practice('a chain of hubs on the bus with little left is blocked, and tight before that', () => {
    expect(volts(1, 1)?.grade).toBe('tight')
    expect(volts(3, 2)?.grade).toBe('blocked')
    expect(volts(3, 2)?.reason).toMatchObject({ before: expect.any(Number) })
  })
  ours('longer leads, more hubs and hungrier devices never leave more', () => {
    const lengths = fc.integer({ min: 1, max: 30 }).map((each) => each / 10)
    fc.assert(
      fc.property(
        lengths,
        lengths,
        fc.constantFrom(0 as const, 1 as const),
        fc.integer({ min: 1, max: 4 }),
        (one, more, hubs, watts) => {
          const have = (finding?: Finding) => finding?.have ?? 0
          const now = volts(one, hubs, watts)
          for (const worse of [
            volts(one + more, hubs, watts),
            volts(one, (hubs + 1) as 1, watts),
            volts(one, hubs, watts + 0.4),
          ])
            expect(have(worse)).toBeLessThanOrEqual(have(now) + 1e-9)
        },
      ),
      { numRuns: cases(60) },
    )
  })
})

describe('a better supply', () => {
  ours('is never worse: more watts, a marked lead, mains', () => {
    const plan = (gives: number, amps: number, mains: boolean, watts: number) =>
      planFrom({
        places: [{ id: 'there', name: 'There', mains }],
        devices: [{ ...charger(gives), place: 'there' }, laptop(96)],
        cables: [cable('c1', {}, { amps })],
        runs: [run('r', 'charger/c', 'laptop/c', 'c1')],
        needs: [power(watts)],
      })
    const grade = (...all: Parameters<typeof plan>) => severity[assess(plan(...all)).runs[0]?.grade ?? 'blocked']
    const ratings = [15, 27, 45, 60, 65, 96, 100]
    fc.assert(
      fc.property(fc.nat(6), fc.nat(6), fc.integer({ min: 5, max: 100 }), fc.boolean(), (one, other, watts, mains) => {
        const [less, more] = [one, other].sort((a, b) => a - b).map((at) => ratings[at] as number) as [number, number]
        expect(grade(more, 3, mains, watts)).toBeLessThanOrEqual(grade(less, 3, mains, watts))
        expect(grade(less, 5, mains, watts)).toBeLessThanOrEqual(grade(less, 3, mains, watts))
        expect(grade(less, 3, true, watts)).toBeLessThanOrEqual(grade(less, 3, mains, watts))
      }),
    )
  })
})

describe('hubs in rows that nobody could lay', () => {
  const hubs = (layers: number, wide: number, how: object) => {
    const names = Array.from({ length: layers }, (_, layer) =>
      Array.from({ length: wide }, (__, at) => `h${layer}-${at}`),
    )
    const ports = ['up', 'up2', 'a', 'b'].map((id) =>
      port(id, 'type-c', { usb: 'gen1x1', takes: 60, gives: id.startsWith('up') ? 60 : 4.5, role: 'either' }),
    )
    const cables: object[] = []
    const runs: object[] = []
    for (const [layer, row] of names.entries())
      for (const [at, name] of row.entries())
        for (const [next, below] of (names[layer + 1] ?? []).entries()) {
          const id = `r${layer}-${at}-${next}`
          cables.push(cable(id, { awg: 24 }))
          runs.push(run(id, `${name}/${next === 0 ? 'a' : 'b'}`, `${below}/${at === 0 ? 'up' : 'up2'}`, id))
        }
    return planFrom({
      devices: names.flat().map((id) => ({ id, name: id, kind: 'hub', ports, ...how })),
      cables,
      runs,
      needs: [{ id: 'n', kind: 'data', from: 'h0-0', to: `h${layers - 1}-0`, rate: 1e6, watts: 1 }],
    })
  }
  practice.each([{ busPowered: true }, { keeps: 5 }])(
    'are judged all the same, however they are joined (%o)',
    (how) => {
      expect(assess(hubs(24, 2, how)).runs).toHaveLength(23 * 4)
      expect(assess(hubs(150, 1, how)).runs).toHaveLength(149)
    },
  )
})

practice('a run that is drawn the other way round brings the same: power flows the way its need says', () => {
  const ratings = fc.constantFrom(15, 27, 45, 60, 65, 96, 100, 140)
  fc.assert(
    fc.property(
      ratings,
      fc.constantFrom(3, 5),
      fc.integer({ min: 5, max: 140 }),
      fc.boolean(),
      (gives, amps, watts, mains) => {
        const of = (from: string, to: string) =>
          planFrom({
            places: [{ id: 'there', name: 'There', mains }],
            devices: [{ ...charger(gives), place: 'there' }, laptop(140)],
            cables: [cable('c1', { awg: 24 }, { amps })],
            runs: [run('r', from, to, 'c1')],
            needs: [power(watts)],
          })
        const said = (plan: Plan) =>
          (['current', 'volts lost', 'far-end power'] as const).map((check) => {
            const found = find(plan, 'r', check)
            return [found?.grade, found?.have, found?.reason]
          })
        expect(said(of('laptop/c', 'charger/c'))).toEqual(said(of('charger/c', 'laptop/c')))
      },
    ),
  )
})
