import { describe, expect } from 'vitest'
import { ours, practice } from '../../tests/support/figures'
import { judge, type OneRun, onePlan } from '../../tests/support/one-run'
import type { Plan } from '../plan/plan'
import { readPlan } from '../plan/read'
import { assess } from './assess'
import { sentence } from './sentences'
import { cautionSentences } from './wording'

const host: OneRun['from'] = { connector: 'type-c', role: 'host', usb: 'gen2x1', gives: 15 }
const device: OneRun['to'] = { kind: 'camera', connector: 'type-c', role: 'device', usb: 'gen2x1' }

describe('hub depth', () => {
  /** A computer, a row of hubs, a stick. */
  function rowOfHubs(count: number): Plan {
    const devices = [
      {
        id: 'host',
        name: 'Host',
        kind: 'computer',
        ports: [{ id: 'down', name: 'port', connector: 'type-a', role: 'host', usb: 'usb2' }],
      },
      ...Array.from({ length: count }, (_, at) => ({
        id: `hub${at}`,
        name: `Hub ${at}`,
        kind: 'hub',
        ports: [
          { id: 'up', name: 'up', connector: 'type-b', role: 'device', usb: 'usb2' },
          { id: 'down', name: 'down', connector: 'type-a', role: 'host', usb: 'usb2' },
        ],
      })),
      {
        id: 'stick',
        name: 'Stick',
        kind: 'other',
        ports: [{ id: 'up', name: 'up', connector: 'type-b', role: 'device', usb: 'usb2' }],
      },
    ]
    const runs = devices.slice(1).map((next, at) => ({
      id: `r${at}`,
      tag: `R-${at}`,
      from: { device: devices[at]?.id, port: 'down' },
      to: { device: next.id, port: 'up' },
      leads: [{ cable: `c${at}` }],
      route: { length: 0.5 },
    }))
    const cables = runs.map((_, at) => ({
      id: `c${at}`,
      tag: `C-${at}`,
      ends: [{ connector: 'type-a' }, { connector: 'type-b' }],
      length: 1,
      evidence: [{ basis: 'claimed', on: '2026-01-01', grade: 'usb2' }],
    }))
    const needs = [{ id: 'n', kind: 'data', from: 'host', to: 'stick', rate: '1 Mb/s' }]
    const read = readPlan({
      format: 'hallway-plan',
      version: 1,
      site: { id: 's', name: 'S' },
      devices,
      cables,
      runs,
      needs,
    })
    if (!read.ok) throw new Error(JSON.stringify(read.faults))
    return read.plan
  }
  ours.each([
    [4, 'clear'],
    [5, 'tight'],
    [6, 'blocked'],
  ])('%d hubs in a row: %s (USB 2.0 §4.1.1)', (count, grade) => {
    const { needs } = assess(rowOfHubs(count))
    expect(needs[0]?.grade).toBe(grade)
    expect(needs[0]?.runs).toHaveLength(count + 1)
  })
  practice('an active extension counts as one', () => {
    const plan = rowOfHubs(5)
    const extended: Plan = {
      ...plan,
      cables: [
        ...plan.cables,
        {
          ...(plan.cables[0] as Plan['cables'][number]),
          id: 'x',
          tag: 'X',
          construction: 'active',
          ends: [
            { connector: 'type-a', gender: 'plug' },
            { connector: 'type-a', gender: 'socket' },
          ],
        },
      ],
      runs: plan.runs.map((run, at) =>
        at === 0 ? { ...run, leads: [{ cable: 'x', reversed: false }, ...run.leads] } : run,
      ),
    }
    expect(assess(extended).needs[0]?.grade).toBe('blocked')
  })
})

describe('bends and conduits', () => {
  const pulled = (thickness: number, route: { bend?: number; conduit?: { inner: number; beside?: number[] } }) =>
    judge({ from: host, to: device, leads: [{ grade: 'gen2', length: 1, more: { thickness } }], path: route })
      .run.findings.filter(({ check }) => check === 'surroundings')
      .map(({ grade, reason }) => [grade, reason.code])
  practice('copper bends no tighter than four diameters', () => {
    expect(pulled(5, { bend: 19 })).toEqual([['blocked', 'bend']])
    expect(pulled(5, { bend: 20 })).toEqual([])
  })
  ours(
    'a moulded plug needs 14.3 mm to pass (common practice), and two cables may fill 31 % (NEC chapter 9 table 1)',
    () => {
      expect(pulled(5, { conduit: { inner: 14 } })).toEqual([
        ['blocked', 'plug-in-conduit'],
        ['note', 'conduit-fill'],
      ])
      expect(pulled(5, { conduit: { inner: 20 } })).toEqual([['note', 'conduit-fill']])
      expect(pulled(5, { conduit: { inner: 20, beside: [12] } })).toEqual([['blocked', 'conduit-fill']])
    },
  )
})

describe('far-end power', () => {
  const fed = (feed: 'bus' | 'optional' | 'required', mains: boolean) =>
    judge({
      from: host,
      to: device,
      far: { place: 'there' },
      places: [{ id: 'there', name: 'Ceiling point', mains }],
      leads: [{ grade: 'gen2', construction: 'active', length: 5, more: { feed } }],
      route: 4,
    }).finding('far-end power')
  ours('blocks a lead that needs a supply where there is no mains, and asks for an approved one where there is', () => {
    expect(fed('required', false)).toMatchObject({ grade: 'blocked', reason: { place: 'Ceiling point' } })
    expect(fed('required', true)).toMatchObject({ grade: 'note', caution: 'approved-supply' })
    expect(fed('optional', false)?.grade).toBe('note')
    expect(fed('bus', false)).toBeUndefined()
  })
  const reaching = (length: number, feed: 'bus' | 'optional' | 'required', mains: boolean) =>
    judge({
      from: host,
      to: device,
      far: { place: 'there' },
      places: [{ id: 'there', name: 'Ceiling point', mains }],
      leads: [{ grade: 'gen2', construction: 'active', length, more: { feed } }],
      route: 4,
    })
  practice('an active lead reaches 5 m, and further only where it is fed', () => {
    expect(reaching(5, 'bus', true).run.mode).toBe('gen2x1')
    expect(reaching(8, 'bus', true).run.mode).toBeNull()
    expect(reaching(8, 'optional', true).run.mode).toBe('gen2x1')
    const unfed = reaching(8, 'optional', false)
    expect(unfed.run.mode).toBeNull()
    expect(unfed.finding('link mode')?.remedies).toContainEqual({ code: 'feed-lead' })
  })
  ours('a lead that needs a supply carries nothing without one', () => {
    const { run, words } = reaching(3, 'required', false)
    expect(run.mode).toBeNull()
    expect(words).toContain('needs a supply at its far end, and there is no mains there')
  })
})

describe('surroundings', () => {
  const along = (through: OneRun['through'], construction: 'active' | 'optical', amps: 0 | 3 = 0) =>
    judge({
      from: host,
      to: device,
      leads: [{ grade: 'gen2', construction, length: 4, amps }],
      route: 3,
      through,
    }).run.findings.filter((finding) => finding.check === 'surroundings')
  ours('copper between different earths is blocked; glass without copper is a thing to ask about', () => {
    expect(along(['other-earth'], 'active')[0]).toMatchObject({
      grade: 'blocked',
      caution: 'earths',
      remedies: [{ code: 'optical-only' }],
    })
    expect(along(['other-earth'], 'optical')[0]?.grade).toBe('note')
    expect(along(['other-earth'], 'optical', 3)[0]?.grade).toBe('blocked')
  })
  ours('walls and ceilings are never declared compliant, only asked about', () => {
    const found = along(['wall', 'ceiling', 'riser', 'conduit', 'outdoors'], 'active')
    expect(found.map(({ grade, caution }) => [grade, caution])).toEqual(
      Array.from({ length: 5 }, () => ['note', 'local-code']),
    )
    expect(cautionSentences['local-code']).toContain('does not declare this route compliant')
  })
  ours('heights, play areas and optical ends have their cautions', () => {
    expect(along(['at-height', 'play-area', 'open-floor'], 'optical').map(({ caution }) => caution)).toEqual([
      'height',
      'trip',
      'trip',
      'optical-end',
    ])
  })
})

describe('history', () => {
  ours('tells what cables of the same kind did in this mode on this controller', () => {
    const plan = onePlan({
      from: { ...host, controller: 'board' },
      to: device,
      leads: [{ grade: 'gen2', length: 1 }],
    })
    const [cable] = plan.cables as [Plan['cables'][number]]
    const trial = (id: string, cameUp: 'gen2x1' | 'usb2', controller: string): Plan['observations'][number] => ({
      id: `${id}-trial`,
      at: '2026-03-01T12:00:00.000Z',
      subject: { cable: id },
      kind: 'trial',
      basis: 'measured',
      tried: 'gen2x1',
      cameUp,
      where: { controller },
    })
    const sibling = (id: string) => ({ ...cable, id, tag: id, kind: 'k' })
    const shop: Plan = {
      ...plan,
      observations: [
        ...plan.observations,
        trial('s1', 'gen2x1', 'board'),
        trial('s2', 'gen2x1', 'board'),
        trial('s3', 'usb2', 'board'),
        trial('s4', 'usb2', 'card'),
      ],
      kinds: [
        { id: 'k', name: 'Kind', ends: cable.ends, oneWay: false, construction: 'passive', grade: 'gen2', stock: [] },
      ],
      cables: [{ ...cable, kind: 'k' }, sibling('s1'), sibling('s2'), sibling('s3'), sibling('s4')],
    }
    const found = assess(shop).runs[0]?.findings.find((finding) => finding.check === 'history')
    expect(found && sentence(found)).toBe('Cables of this kind: 2 of 3 held USB 10 Gb/s (Gen 2) on board.')
    expect(
      assess({ ...shop, cables: shop.cables.slice(0, 3) }).runs[0]?.findings.some(
        (finding) => finding.check === 'history',
      ),
    ).toBe(false)
  })
})

describe('value', () => {
  const noted = (grade: 'gen2' | 'usb4-40', length: number) =>
    judge({ from: host, to: device, leads: [{ grade, length }] }).finding('value')
  ours('says that a lead could do more than its ports, and nothing where it is needed whole', () => {
    expect(noted('usb4-40', 0.8)).toMatchObject({ grade: 'note', have: 40e9, need: 10e9 })
    expect(
      judge({
        from: { ...host, thunderbolt: 4 },
        to: { ...device, thunderbolt: 4 },
        leads: [{ grade: 'usb4-40', length: 0.8 }],
      }).finding('value'),
    ).toBeUndefined()
    expect(judge({ from: host, to: device, leads: [{ grade: 'usb2', length: 1 }] }).finding('value')).toBeUndefined()
  })
})
