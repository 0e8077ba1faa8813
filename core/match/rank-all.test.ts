import { readFileSync } from 'node:fs'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { benchSite } from '../../server/command/bench-site'
import { cases } from '../../tests/support/laws'
import { anew, BETWEEN, changedFrom, drawn, drawnAgain, smallSite } from '../../tests/support/small-site'
import { walkNeeds } from '../checks/assess'
import { observationSchema } from '../observe/observation'
import type { Plan } from '../plan/plan'
import { patch } from '../plan/put'
import { readPlanText } from '../plan/read'
import { indexPlan } from '../plan/site-index'
import { candidatesOf, rankCables } from './rank'
import { gradeAt, rankAll, rankRun } from './rank-all'

const read = readPlanText(readFileSync('demo/saltmarsh.json', 'utf8'))
if (!read.ok) throw new Error('the demo plan has faults')

/** The plain double loop. */
function plainly(plan: Plan): Record<string, string[]> {
  const index = indexPlan(plan)
  const { crossings } = walkNeeds(index)
  return Object.fromEntries(
    plan.runs.map((run) => [
      run.tag,
      rankCables(index, run, crossings.get(run.id) ?? []).map(({ cable, grade }) => `${cable.tag} ${grade}`),
    ]),
  )
}

function atOnce(plan: Plan): Record<string, string[]> {
  const { cables, byRun } = rankAll(indexPlan(plan))
  return Object.fromEntries(
    plan.runs.map((run) => {
      const ranked = byRun.get(run.id)
      return [
        run.tag,
        ranked ? [...ranked.order].map((at, place) => `${cables[at]?.tag} ${gradeAt(ranked, place)}`) : [],
      ]
    }),
  )
}

/** Each run by itself, as its page asks for it, and only then what is said of each cable. */
function oneByOne(plan: Plan): Record<string, string[]> {
  const index = indexPlan(plan)
  const { crossings } = walkNeeds(index)
  return Object.fromEntries(
    plan.runs.map((run) => {
      const crossed = crossings.get(run.id) ?? []
      const ranked = candidatesOf(index, run, crossed, rankRun(index, run, crossed))
      return [run.tag, ranked.map(({ cable, grade }) => `${cable.tag} ${grade}`)]
    }),
  )
}

describe('every cable for every run', () => {
  it.each([
    ['the demo', read.plan],
    ['the demo by the bench', { ...read.plan, policy: { ...read.plan.policy, length: 'bench' as const } }],
    [
      'the demo with supplied cables only',
      { ...read.plan, policy: { ...read.plan.policy, cables: 'supplied' as const } },
    ],
    ['a made-up site', benchSite(120, 140)],
  ])('comes out as one run after the other: %s', (_name, plan) => {
    expect(atOnce(plan)).toEqual(plainly(plan))
    expect(oneByOne(plan)).toEqual(plainly(plan))
  })

  // what runs and leads that look alike may differ in: what a display says of itself, what lies on the way, how thick a lead is, where a headset is worn
  const made = fc.record({
    screens: fc.array(fc.tuple(fc.nat(), fc.nat(2), fc.boolean()), { maxLength: 6 }),
    leads: fc.array(fc.tuple(fc.nat(), fc.constantFrom(undefined, 4, 6, 12), fc.constantFrom(1, 2, 3, 5)), {
      maxLength: 12,
    }),
    ways: fc.array(fc.tuple(fc.nat(), fc.nat(), fc.constantFrom(0.5, 2, 4.4, 9), fc.boolean()), { maxLength: 6 }),
    sections: fc.array(fc.tuple(fc.nat(), fc.constantFrom(undefined, 10, 20, 60)), { maxLength: 4 }),
    area: fc.constantFrom(1, 2, 4),
    hdr: fc.boolean(),
  })
  type Made = typeof made extends fc.Arbitrary<infer Value> ? Value : never
  const at = <Item>(list: readonly Item[], number: number): Item => list[number % list.length] as Item
  function siteOf({ screens, leads, ways, sections, area, hdr }: Made): Plan {
    let plan = read.ok ? read.plan : ({} as Plan)
    const displays = plan.devices.filter(({ kind }) => kind === 'display' || kind === 'projector')
    const lists = [
      [{ width: 3840, height: 2160, refresh: 60 }],
      [{ width: 1920, height: 1080, refresh: 60 }],
      [
        { width: 3840, height: 2160, refresh: 59.94 },
        { width: 2560, height: 1440, refresh: 60 },
      ],
    ]
    for (const [which, list, told] of screens)
      plan = patch(plan, 'devices', at(displays, which).id, (device) => ({
        ...device,
        screen: { modes: at(lists, list), hdr: told, bits: told ? 10 : 8, read: '2026-05-01' },
      }))
    for (const [which, thickness, length] of leads)
      plan = patch(plan, 'cables', at(plan.cables, which).id, ({ thickness: _, ...cable }) => ({
        ...cable,
        length,
        ...(thickness === undefined ? {} : { thickness }),
      }))
    for (const [which, inner] of sections)
      plan = patch(plan, 'pathways', at(plan.pathways, which).id, ({ inner: _, ...pathway }) => ({
        ...pathway,
        ...(inner === undefined ? {} : { inner }),
      }))
    for (const [which, along, length, lost] of ways)
      plan = patch(plan, 'runs', at(plan.runs, which).id, (run) => ({
        ...run,
        route: lost
          ? { length, follows: true }
          : { length, follows: true, legs: [{ by: 'tray', length, pathway: at(plan.pathways, along).id }] },
      }))
    return {
      ...plan,
      places: plan.places.map((place) => (place.area ? { ...place, area: { width: area, depth: area } } : place)),
      needs: plan.needs.map((need) =>
        need.kind === 'picture' && hdr ? { ...need, mode: { ...need.mode, bits: 10, hdr } } : need,
      ),
    }
  }
  it('on a small site where much is alike', () => {
    fc.assert(
      fc.property(drawn, (numbers) => {
        const plan = smallSite(numbers)
        expect(atOnce(plan)).toEqual(plainly(plan))
      }),
      { numRuns: cases(100) },
    )
  })
  it('and after a change, of which what was ranked before may be kept', () => {
    fc.assert(
      fc.property(drawnAgain, ([first, second]) => {
        const before = smallSite(first)
        atOnce(before)
        const after = changedFrom(before, smallSite(second))
        expect(atOnce(after)).toEqual(plainly(anew(after)))
      }),
      { numRuns: cases(200) },
    )
  })
  it('also where a disk that a lead once copied to turns out to be another', () => {
    const seen = observationSchema.parse({
      id: 'slow',
      at: '2026-06-01T08:00:00.000Z',
      subject: { cable: 'c5' },
      where: { ...BETWEEN, far: { device: 'far-3', port: 'p' } },
      kind: 'reading',
      measure: 'write',
      rate: 1.6e8,
      limit: 'unknown',
    })
    const quiet = smallSite([2])
    const withDisk = (write: number): Plan => ({
      ...quiet,
      observations: [...quiet.observations, seen],
      devices: quiet.devices.map((device) =>
        device.id === 'far-3' ? { ...device, disk: { write, read: 4e9, bridge: 'good' as const } } : device,
      ),
    })
    const before = withDisk(4e9)
    const after = changedFrom(before, withDisk(1.7e8))
    expect(atOnce(before)).toEqual(plainly(anew(before)))
    expect(atOnce(after)).toEqual(plainly(anew(after)))
    expect(atOnce(after)).not.toEqual(atOnce(before))
  })
  it('and whatever runs that look alike differ in', () => {
    fc.assert(
      fc.property(made, (figures) => {
        const plan = siteOf(figures)
        expect(atOnce(plan)).toEqual(plainly(plan))
      }),
      { numRuns: cases(25) },
    )
  })
})
