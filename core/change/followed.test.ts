import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { demo } from '../../tests/support/demo-plan'
import { cases, inProportion } from '../../tests/support/laws'
import { assessAnew } from '../checks/assess'
import { judged } from '../checks/look-ahead'
import { reassess } from '../checks/reassess'
import type { Plan } from '../plan/plan'
import { readPlan } from '../plan/read'
import { roomOf } from '../remedy/room'
import { followedRoute, withFollowedRoutes } from '../route/follow'
import { spotKey } from '../route/network'
import { pathwaySchema, type Spot } from '../vocabulary/floor'
import type { Run } from '../vocabulary/run'
import { applyChange } from './apply'
import type { Copy, Edit } from './change'
import { copyPlace } from './changes/copy-place'
import { couldFollow, deletePathway, followPathways, moveSpot, savePathway, standPlaces } from './changes/floors'
import { copyOf } from './copy'
import { followed } from './followed'

/** Every run of the demo whose ends stand on the pathways follows them. */
const start = copyOf(applied(copyOf(demo), followPathways(demo, couldFollow(demo), 1).edits).plan)

function applied(copy: Copy, edits: readonly Edit[]): Copy {
  const outcome = applyChange(copy, { edits: followed(copy, edits) })
  if (outcome.outcome !== 'applied') throw new Error(JSON.stringify(outcome))
  return outcome.copy
}

const pick = <T>(list: readonly T[], at: number): T => list[at % list.length] as T
const coordinate = fc.integer({ min: 0, max: 200 }).map((tenths) => tenths / 10)
const step = fc.record({
  sort: fc.nat(6),
  one: fc.nat(97),
  other: fc.nat(89),
  x: coordinate,
  y: coordinate,
  inner: fc.integer({ min: 8, max: 40 }),
})
type Step = typeof step extends fc.Arbitrary<infer T> ? T : never

/** What somebody might do on a floor. */
function edits(copy: Copy, { sort, one, other, x, y, inner }: Step, number: number): readonly Edit[] {
  const { plan, place } = copy
  const at: Spot = { floor: 'ground', x, y }
  const spots = [...plan.places.flatMap((each) => each.at ?? []), ...plan.pathways.flatMap(({ points }) => points)]
  const pathway = pick(plan.pathways, one)
  switch (sort) {
    case 0:
    case 1:
      return moveSpot(plan, place, pick(spots, one), at).edits
    case 2:
      return plan.pathways.length > 2 ? deletePathway(pathway, place).edits : []
    case 3: {
      const [from, to] = [pick(spots, one), pick(spots, other)]
      if (spotKey(from) === spotKey(to)) return []
      const points = [from, to].map((spot) => ({ floor: spot.floor, x: spot.x, y: spot.y, height: 2 }))
      const made = pathwaySchema.parse({ id: `made-${number}`, name: `Made ${number}`, kind: 'tray', points, inner })
      return savePathway(plan, made, null, place).edits
    }
    case 4:
      return savePathway(plan, { ...pathway, closed: !pathway.closed, inner }, place, place).edits
    case 5:
      return standPlaces(plan, [{ ...pick(plan.places, one), at, height: inner / 20 }], place).edits
    default: {
      const run = pick(plan.runs, one)
      const lead = pick(plan.cables, other)
      const free = !plan.runs.some(({ leads }) => leads.some((each) => 'cable' in each && each.cable === lead.id))
      const value = { ...run, leads: free ? [{ cable: lead.id, reversed: false }] : [] }
      return [{ list: 'runs', id: run.id, base: place, value }]
    }
  }
}

const walks = fc.array(step, { minLength: 1, maxLength: 8 })
function walk(steps: readonly Step[], see: (before: Copy, after: Copy, made: readonly Edit[]) => void): void {
  let copy = start
  for (const [number, each] of steps.entries()) {
    const made = edits(copy, each, number)
    if (made.length === 0) continue
    const outcome = applyChange(copy, { edits: followed(copy, made) })
    if (outcome.outcome !== 'applied') continue
    see(copy, outcome.copy, made)
    copy = outcome.copy
  }
}

const following = ({ runs }: Plan): Run[] => runs.filter(({ route }) => route.follows)

describe('runs that follow the pathways', () => {
  it('have the way and the length that the pathways give, whatever is done on the floors', () => {
    let seen = 0
    fc.assert(
      fc.property(walks, (steps) => {
        walk(steps, (_, { plan }) => {
          for (const run of following(plan)) {
            seen += 1
            expect(run.route).toEqual(followedRoute(plan, run))
          }
        })
      }),
      { numRuns: cases(60) },
    )
    expect(seen).toBeGreaterThan(inProportion(500))
  })
  it('leave a plan that reads back the same', () => {
    fc.assert(
      fc.property(walks, (steps) => {
        walk(steps, (_, { plan }) => {
          const back = readPlan(JSON.parse(JSON.stringify(plan)))
          expect(back).toEqual({ ok: true, plan })
        })
      }),
      { numRuns: cases(30) },
    )
  })
  it('go back to where they were when a change is taken back', () => {
    let taken = 0
    fc.assert(
      fc.property(walks, (steps) => {
        walk(steps, (before, _, made) => {
          const there = applyChange(before, { edits: followed(before, made) })
          if (there.outcome !== 'applied') return
          taken += 1
          const back = applyChange(there.copy, { edits: followed(there.copy, there.inverse), undoes: 'x' })
          expect(back.outcome === 'applied' && back.copy.plan).toEqual(before.plan)
        })
      }),
      { numRuns: cases(40) },
    )
    expect(taken).toBeGreaterThan(inProportion(10))
  })
  it('are judged again as judging anew would, the conduits they share included; and so is a room', () => {
    fc.assert(
      fc.property(walks, fc.nat(97), (steps, one) => {
        walk(steps, (before, { plan }, made) => {
          const was = assessAnew(before.plan)
          const anew = assessAnew(plan)
          expect(reassess(was, plan).assessment).toEqual(anew.assessment)
          expect(judged(was, made).assessment).toEqual(anew.assessment)
          const run = pick(plan.runs, one)
          const room = assessAnew(roomOf(anew.index, run.id)).assessment
          for (const verdict of room.runs)
            expect(verdict).toEqual(anew.assessment.runs.find(({ id }) => id === verdict.id))
        })
      }),
      { numRuns: cases(25) },
    )
  })
  it('cost nothing where nothing of it is touched', () => {
    const note: Edit[] = [{ list: 'site', id: 'site', base: 1, value: { ...demo.site, note: 'x' } }]
    expect(followed(start, note)).toBe(note)
  })
  it('that find no way keep their last length and say so', () => {
    const conduit = start.plan.pathways.find(({ id }) => id === 'wheelhouse-conduit')
    if (!conduit) throw new Error('the demo has a conduit')
    const { plan } = applied(start, deletePathway(conduit, 1).edits)
    const run = plan.runs.find(({ id }) => id === 'r-07')
    expect(run?.route).toMatchObject({ length: 31, follows: true })
    expect(run?.route.legs).toBeUndefined()
    const verdict = assessAnew(plan).assessment.runs.find(({ id }) => id === 'r-07')
    expect(verdict?.findings.some(({ reason }) => reason.code === 'no-way')).toBe(true)
  })
})

describe('a conduit', () => {
  it('is filled by the leads of all runs in it, and each is told when it is too full', () => {
    const conduit = start.plan.pathways.find(({ id }) => id === 'wheelhouse-conduit')
    if (!conduit) throw new Error('the demo has a conduit')
    const thick = { ...start.plan, cables: start.plan.cables.map((cable) => ({ ...cable, thickness: 6 })) }
    const { plan } = applied(copyOf(thick), savePathway(thick, { ...conduit, inner: 12, beside: [] }, 1, 1).edits)
    const inside = plan.runs.filter(({ route }) => route.legs?.some(({ pathway }) => pathway === conduit.id))
    expect(inside.length).toBeGreaterThan(2)
    for (const run of inside) {
      const verdict = assessAnew(plan).assessment.runs.find(({ id }) => id === run.id)
      const fill = verdict?.findings.find(({ reason }) => reason.code === 'conduit-fill')
      // 36 mm² of 144 each (NEC chapter 9 table 1: 40 % for more than two)
      expect(fill).toMatchObject({
        grade: 'blocked',
        reason: { share: inside.length / 4, limit: 0.4, cables: inside.length },
      })
    }
  })
})

describe('what somebody else wrote, and what is copied', () => {
  it('a plan whose runs only say that they follow gets their ways', () => {
    const bare = demo.runs.map((run) =>
      run.route.follows ? { ...run, route: { length: 1, follows: true as const } } : run,
    )
    const { runs } = withFollowedRoutes({ ...demo, runs: bare })
    for (const run of runs) {
      const was = demo.runs.find(({ id }) => id === run.id)
      expect([run.route.length, run.route.legs]).toEqual([was?.route.length, was?.route.legs])
    }
  })
  it('a copy of a place stands on no floor yet, and nobody has been there', () => {
    const [place] = demo.places
    if (!place?.at) throw new Error('the demo has places on a floor')
    const { plan } = applied(copyOf(demo), copyPlace(demo, place, 1).edits)
    const copy = plan.places.at(-1)
    expect(copy).toMatchObject({ mains: place.mains })
    expect([copy?.at, copy?.seen, copy?.photos]).toEqual([undefined, undefined, undefined])
    const devices = plan.devices.filter((device) => device.place === copy?.id)
    expect(devices.length).toBeGreaterThan(0)
    for (const device of devices) expect([device.at, device.seen]).toEqual([undefined, undefined])
  })
})

describe('edits that somebody sent', () => {
  it('lead nowhere where they cannot be read, and never fail', () => {
    const ids = { runs: 'r-09', devices: 'helm', pathways: 'under-floor', places: 'gallery', floors: 'ground' } as const
    const list = fc.constantFrom('runs', 'devices', 'pathways', 'places', 'floors')
    fc.assert(
      fc.property(list, fc.jsonValue(), fc.dictionary(fc.string(), fc.jsonValue()), (name, value, more) => {
        const id = ids[name]
        for (const each of [value, { ...more, id, unknown: 1 }, { ...start.plan.runs[0], ...more, id, unknown: 1 }]) {
          if (each === null) continue
          const edits = [{ list: name, id, base: start.place, value: each as never }]
          expect(followed(start, edits)).toBe(edits)
          expect(applyChange(start, { edits }).outcome).toBe('refused')
        }
      }),
      { numRuns: cases(200) },
    )
  })
})
