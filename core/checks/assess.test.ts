import { readFileSync } from 'node:fs'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { judge, type OneRun, onePlan } from '../../tests/support/one-run'
import { renamedPlan } from '../../tests/support/renamed-plan'
import type { Plan } from '../plan/plan'
import { readPlanText } from '../plan/read'
import { CABLE_GRADES } from '../standards/grades'
import { linkModeFacts } from '../standards/link-modes'
import { assess, leadingFinding } from './assess'
import { GRADES, marginOf } from './finding'
import { remedySentence } from './remedies'
import { sentence } from './sentences'
import { cautionSentences, formatFigure } from './wording'

const read = readPlanText(readFileSync('demo/saltmarsh.json', 'utf8'))
if (!read.ok) throw new Error('the demo plan has faults')
const demo = read.plan

const shuffled = <T>(list: readonly T[], seed: number): T[] =>
  list
    .map((item, at) => [Math.sin(seed * 97 + at * 13), item] as const)
    .sort(([one], [other]) => one - other)
    .map(([, item]) => item)

describe('assess', () => {
  it('is the same whatever order its devices and cables are listed in', () => {
    const expected = assess(demo)
    for (const seed of [1, 2, 3]) {
      const mixed: Plan = {
        ...demo,
        devices: shuffled(demo.devices, seed),
        cables: shuffled(demo.cables, seed),
        observations: shuffled(demo.observations, seed),
      }
      expect(assess(mixed)).toEqual(expected)
    }
  })

  it('is the same with other ids: who is served first is a stated priority, then the order of the list', () => {
    const renamed = renamedPlan(demo)
    const plain = (plan: Plan) =>
      assess(plan).runs.map(({ grade, mode, narrowest, flows, findings }) => ({
        grade,
        mode,
        narrowest,
        flows: flows.map((flow) => ({ ...flow, needId: '' })),
        findings: findings.map(({ check, grade: each, have, need }) => [check, each, have, need]),
      }))
    expect(plain(renamed)).toEqual(plain(demo))
    expect(assess(renamed).needs.map(({ grade }) => grade)).toEqual(assess(demo).needs.map(({ grade }) => grade))
  })

  it('serves the need with the better priority first', () => {
    const stated = (priority: number): Plan => ({
      ...demo,
      needs: demo.needs.map((need) => (need.id === 'log-picture' ? { ...need, priority } : need)),
    })
    const order = (plan: Plan) =>
      assess(plan)
        .runs.find(({ id }) => id === 'r-09')
        ?.findings.flatMap(({ check, needId }) => (check === 'picture' ? [needId] : []))
    expect(order(demo)).toEqual(['chart-picture', 'log-picture'])
    expect(order(stated(1))).toEqual(['log-picture', 'chart-picture'])
  })

  it('lets only finite figures out, and no margin that reads the wrong way', () => {
    let rates = 0
    for (const { findings } of assess(demo).runs) {
      for (const finding of findings) {
        for (const figure of [finding.have, finding.need, marginOf(finding)])
          expect(figure === null || Number.isFinite(figure)).toBe(true)
        if (finding.check !== 'rate') continue
        rates += 1
        expect((marginOf(finding) ?? 0) < 0).toBe(finding.grade === 'blocked')
      }
    }
    expect(rates).toBeGreaterThan(3)
  })

  it('gives a need the worst of what crosses it on its whole way', () => {
    const { needs, runs } = assess(demo)
    const files = needs.find((need) => need.id === 'exercise-files')
    expect(files).toMatchObject({ grade: 'blocked', runs: ['r-09', 'r-12'] })
    expect(files?.path.map((part) => part.id)).toEqual([
      'gallery-laptop/left',
      'c-0017',
      'gallery-dock/up',
      'gallery-dock/c-1',
      'c-0027',
      'exercise-disk/c',
    ])
    expect(runs.find((run) => run.id === 'r-09')?.flows.find((flow) => flow.needId === 'chart-picture')?.grade).toBe(
      'clear',
    )
  })

  it('says so where a need has no way at all', () => {
    const need = { id: 'lost', kind: 'data', from: 'projector', to: 'replay', rate: 1e9 } as const
    const verdict = assess({ ...demo, needs: [need] }).needs[0]
    expect(verdict).toMatchObject({ grade: 'blocked', path: [], runs: [] })
    expect(sentence(verdict?.findings[0] as never)).toBe(
      'No path of runs, docks and hubs leads from Debrief projector to Replay array.',
    )
  })

  it('blames two runs that share a port', () => {
    const [first, second] = demo.runs as [Plan['runs'][number], Plan['runs'][number]]
    const { runs } = assess({ ...demo, runs: [first, { ...second, from: first.from }] })
    expect(runs.map(({ findings }) => findings[0]?.reason)).toEqual([
      { code: 'port-taken', by: 'R-02' },
      { code: 'port-taken', by: 'R-01' },
    ])
  })

  it('names the narrowest door', () => {
    const { run } = judge({
      from: { connector: 'type-c', role: 'host', usb: 'gen2x1', thunderbolt: 4 },
      to: { connector: 'type-c', role: 'device', usb: 'gen2x1', thunderbolt: 4 },
      leads: [{ grade: 'thunderbolt3', length: 2 }],
    })
    expect(run.narrowest).toBe(1)
    expect(run.doors.map((door) => door.data?.rate)).toEqual([40e9, 20e9, 40e9])
    expect(run.doors[1]?.saidBy).toBe('the mark on it')
  })

  it('shows a door as wide as what is asked of it: a lead that could also carry pictures is no wider for a headset', () => {
    const doors = assess(demo).runs.find((run) => run.id === 'r-15')?.doors
    expect(doors?.map((door) => door.picture)).toEqual([null, null, null])
  })
})

describe('properties', () => {
  const ends: Pick<OneRun, 'from' | 'to'> = {
    from: {
      connector: 'type-c',
      role: 'host',
      usb: 'gen2x2',
      thunderbolt: 5,
      displayport: { direction: 'out', link: 'uhbr20' },
      gives: 15,
    },
    to: {
      connector: 'type-c',
      role: 'device',
      usb: 'gen2x2',
      thunderbolt: 5,
      displayport: { direction: 'in', link: 'uhbr20' },
    },
  }
  const grades = fc.constantFrom(...CABLE_GRADES.filter((grade) => !/^(dp|hdmi|cat|fibre)/.test(grade)))
  const constructions = fc.constantFrom('passive' as const, 'active' as const, 'optical' as const)

  it('more length never widens a door', () => {
    const lengths = fc.double({ min: 0.1, max: 60, noNaN: true })
    fc.assert(
      fc.property(grades, constructions, lengths, lengths, (grade, construction, one, other) => {
        const rateAt = (length: number) =>
          judge({ ...ends, leads: [{ grade, construction, length }] }).run.doors[1]?.data?.rate ?? 0
        expect(rateAt(Math.max(one, other))).toBeLessThanOrEqual(rateAt(Math.min(one, other)))
      }),
    )
  })

  it('a wider lead of the same family never makes a grade worse', () => {
    const ladder = ['charge-only', 'usb2', 'gen1', 'gen2', 'usb4-20', 'usb4-40', 'usb4-80'] as const
    const rate = fc.integer({ min: 1, max: 60 }).map((gigabits) => gigabits * 1e9)
    // to 2 m, where the book knows every grade in either construction
    const length = fc.constantFrom(0.3, 0.8, 1, 1.5, 2)
    fc.assert(
      fc.property(
        rate,
        length,
        fc.constantFrom('passive' as const, 'active' as const),
        (bits, metres, construction) => {
          const verdicts = ladder.map((grade) =>
            GRADES.indexOf(
              judge({ ...ends, leads: [{ grade, construction, length: metres }], need: { kind: 'data', rate: bits } })
                .run.grade,
            ),
          )
          expect([...verdicts].sort()).toEqual(verdicts)
        },
      ),
    )
  })

  it('one need more never leaves more to the first that finds anything else: what is refused takes nothing from those behind it', () => {
    const plan = onePlan({ ...ends, leads: [{ grade: 'usb4-40', length: 0.5 }] })
    const need = fc.record({
      kind: fc.constantFrom('storage' as const, 'data' as const, 'camera' as const),
      rate: fc.integer({ min: 1, max: 50 }).map((gigabits) => gigabits * 1e9),
    })
    fc.assert(
      fc.property(fc.array(need, { minLength: 1, maxLength: 5 }), need, (needs, extra) => {
        const haveOfAll = (list: { kind: 'storage' | 'data' | 'camera'; rate: number }[]) =>
          assess({
            ...plan,
            needs: list.map((item, at) => ({ id: `n${at}`, from: 'near', to: 'far', ...item })),
          }).runs[0]?.findings.filter((finding) => finding.check === 'rate') ?? []
        // in the order they are served
        const before = haveOfAll(needs)
        const after = new Map(haveOfAll([...needs, extra]).map((finding) => [finding.needId, finding.have ?? 0]))
        const first = before.find(({ needId, have }) => Math.abs((after.get(needId) ?? 0) - (have ?? 0)) > 1)
        if (first) expect(after.get(first.needId)).toBeLessThan(first.have ?? 0)
      }),
    )
  })
})

describe('the words', () => {
  const every = assess(demo)
  const findings = [...every.runs.flatMap((run) => run.findings), ...every.needs.flatMap((need) => need.findings)]
  it('are whole sentences with their figures, in both units', () => {
    for (const finding of findings) {
      for (const unit of ['m', 'ft'] as const) {
        expect(sentence(finding, unit)).toMatch(/^[A-Z0-9].*[.]$/)
        for (const remedy of finding.remedies) expect(remedySentence(remedy, unit)).toMatch(/^[A-Z].*[.]$/)
        expect(
          `${sentence(finding, unit)} ${finding.remedies.map((remedy) => remedySentence(remedy, unit)).join()}`,
        ).not.toMatch(/undefined|NaN|null|\[object/)
      }
    }
  })
  it('lead with what blocks, and with the purpose where all is clear', () => {
    const leadingOf = (id: string) => leadingFinding(every.runs.find((run) => run.id === id)?.findings ?? [])?.check
    expect([leadingOf('r-14'), leadingOf('r-13'), leadingOf('r-18')]).toEqual(['direction', 'current', 'rate'])
    expect(leadingFinding([])).toBeNull()
  })
  it('write figures with unit and sign', () => {
    expect(formatFigure(-1.5, 'm', 'ft')).toBe('-4 ft 11 in')
    expect(formatFigure(null, 'W')).toBe('-')
    expect(formatFigure(linkModeFacts.usb2.line, 'bit/s')).toBe('480 Mb/s')
    expect(cautionSentences['above-100-watts']).toContain('never extended')
  })
})
