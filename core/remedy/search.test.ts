import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { demo } from '../../tests/support/demo-plan'
import { madeUpCopy, many, start } from '../../tests/support/made-up-walk'
import { applyChange } from '../change/apply'
import type { Copy } from '../change/change'
import { followed } from '../change/followed'
import { type Assessment, assess, assessAnew } from '../checks/assess'
import { GRADES, type Verdict } from '../checks/finding'
import { assortment } from '../match/assortment'
import type { Plan } from '../plan/plan'
import { readPlan } from '../plan/read'
import { finished } from '../work/in-slices'
import { withKind, withKindsOf } from './best-lead'
import { roomOf } from './room'
import { findWaysOut, type WayOut } from './search'
import { moveSentence } from './words'

const waysOf = (copy: Copy, run: string, wanted?: 'all' | 'one') =>
  finished(findWaysOut(assessAnew(copy.plan), run, copy.place, wanted))

const gradesOf = ({ runs, needs }: Assessment): Map<string, Verdict> =>
  new Map([
    ...runs.map(({ id, grade }) => [`run ${id}`, grade] as const),
    ...needs.map(({ id, grade }) => [`need ${id}`, grade] as const),
  ])

/** What a change makes worse, counted without any help from the search. */
function worseIn(before: Plan, after: Plan): number {
  const [was, is] = [gradesOf(assess(before)), gradesOf(assess(after))]
  return [...is].filter(([key, grade]) => {
    const old = was.get(key)
    return old === undefined ? grade === 'blocked' : GRADES.indexOf(grade) < GRADES.indexOf(old)
  }).length
}

function takes(copy: Copy, run: string, way: WayOut): void {
  // as whoever takes it saves it: with the runs that follow the pathways brought along
  const applied = applyChange(copy, { edits: followed(copy, way.edits) })
  if (applied.outcome !== 'applied')
    throw new Error(`${way.moves.map((move) => moveSentence(move)).join(' ')}: ${JSON.stringify(applied)}`)
  const { plan } = applied.copy
  const grade = assess(plan).runs.find(({ id }) => id === run)?.grade ?? 'blocked'
  const was = assess(copy.plan).runs.find(({ id }) => id === run)?.grade ?? 'clear'
  expect(grade).toBe(way.after)
  expect(GRADES.indexOf(grade)).toBeGreaterThan(GRADES.indexOf(was))
  expect(way.worse).toHaveLength(worseIn(copy.plan, plan))
  // what is offered could be a file
  expect(readPlan(JSON.parse(JSON.stringify(plan))).ok).toBe(true)
}

describe('what would make a run clear', () => {
  it('whatever the plan: each way offered can be taken, betters the run as it says, and says all that gets worse', () => {
    let offered = 0
    fc.assert(
      fc.property(many, fc.nat(), (changes, turn) => {
        const copy = madeUpCopy(changes)
        const wanting = assess(copy.plan).runs.filter(({ grade }) => grade !== 'clear')
        const run = wanting[turn % Math.max(1, wanting.length)]
        if (!run) return
        const { ways, closest } = waysOf(copy, run.id)
        for (const way of ways) takes(copy, run.id, way)
        offered += ways.length
        if (ways.length > 0) expect(closest).toBeNull()
      }),
      { numRuns: 40 },
    )
    expect(offered).toBeGreaterThan(60)
  })

  it('whatever the plan: judging the room of a run gives what judging the site gives', () => {
    fc.assert(
      fc.property(many, fc.nat(), (changes, turn) => {
        const { plan } = madeUpCopy(changes)
        const run = plan.runs[turn % Math.max(1, plan.runs.length)]
        if (!run) return
        const site = assessAnew(plan)
        const room = assess(roomOf(site.index, run.id))
        expect(room.runs.length).toBeGreaterThan(0)
        for (const verdict of room.runs)
          expect(verdict).toEqual(site.assessment.runs.find(({ id }) => id === verdict.id))
        for (const verdict of room.needs)
          expect(verdict).toEqual(site.assessment.needs.find(({ id }) => id === verdict.id))
      }),
      { numRuns: 60 },
    )
  })

  it('two changes may each bring a kind into the catalogue: neither loses the other', () => {
    const [one, other] = assortment.map(({ kind }) => kind)
    if (!one || !other) throw new Error('something is commonly sold')
    const first = { ...demo, kinds: withKindsOf(demo, withKind(demo, one)) }
    const both = withKindsOf(first, withKind(demo, other)).map(({ id }) => id)
    expect(both).toEqual([...demo.kinds.map(({ id }) => id), one.id, other.id])
    expect(withKindsOf(first, demo)).toBe(first.kinds)
  })

  it('offers the least disturbing first: what lies in the drawer before what is bought', () => {
    const { ways } = waysOf(start, 'r-09')
    expect(ways.map(({ after, price, effort }) => [after, effort, price])).toEqual([
      ['clear', 'lead', 0],
      ['clear', 'lead', 0],
      ['clear', 'bought', 69],
      ['tight', 'lead', 0],
    ])
    expect(moveSentence(ways[0]?.moves[0] as WayOut['moves'][number])).toBe('Lay C-0021 from the drawer (2 m) in R-09.')
  })

  it('asked for one way only it stops at the first that harms nothing', () => {
    const one = waysOf(start, 'r-09', 'one')
    expect(one.ways).toHaveLength(1)
    expect(one.tried).toBeLessThan(waysOf(start, 'r-09').tried)
    takes(start, 'r-09', one.ways[0] as WayOut)
  })

  it('has nothing to say of a run that is clear, or that is not there', () => {
    expect(waysOf(start, 'r-18')).toEqual({ ways: [], tried: 0, closest: null })
    expect(waysOf(start, 'r-99')).toEqual({ ways: [], tried: 0, closest: null })
  })

  const changed = (change: (plan: Plan) => Plan): Copy => ({ ...start, plan: change(demo) })
  const codes = (copy: Copy, run: string) => waysOf(copy, run).ways.map(({ moves }) => moves.map(({ code }) => code))
  const longWay = (plan: Plan, run: string, length: number): Plan => ({
    ...plan,
    runs: plan.runs.map((each) => (each.id === run ? { ...each, route: { length } } : each)),
  })

  it('moves the dock where its own lead would be too long', () => {
    const far = changed((plan) =>
      longWay({ ...plan, cables: plan.cables.filter(({ id }) => id !== 'c-0021') }, 'r-09', 4),
    )
    expect(codes(far, 'r-09').flat()).toContain('dock to host side')
  })
  it('thinks of a pair of extenders where data has to go further than leads do', () => {
    const far = changed((plan) => longWay(plan, 'r-17', 40))
    expect(codes(far, 'r-17').flat()).toContain('extender pair')
  })
  it('asks for less where two pictures are more than the uplink has, and says whom another order would cost', () => {
    const large = changed((plan) => ({
      ...plan,
      runs: plan.runs.map((run) =>
        run.id === 'r-09' ? { ...run, leads: [{ cable: 'c-0021', reversed: false }] } : run,
      ),
      needs: plan.needs.map((need) =>
        need.kind === 'picture' && need.from === 'gallery-laptop'
          ? { ...need, mode: { ...need.mode, width: 5120, height: 2880 } }
          : need,
      ),
    }))
    expect(codes(large, 'r-09')).toContainEqual(['lesser picture'])
  })
  it('allows the compression that somebody forbade', () => {
    const strict = changed((plan) => ({
      ...plan,
      devices: plan.devices.map((device) => ({
        ...device,
        ports: device.ports.map((port) =>
          port.displayport ? { ...port, displayport: { ...port.displayport, compression: true } } : port,
        ),
      })),
      needs: plan.needs.map((need) =>
        need.kind === 'picture' && need.to === 'view-1'
          ? { ...need, uncompressed: true, mode: { ...need.mode, refresh: 144 } }
          : need,
      ),
    }))
    expect(codes(strict, 'r-01')[0]).toEqual(['allow compression'])
  })
  it('gives a laptop a larger charger, or one of its own, at what the site says it costs', () => {
    const hungry = (equipment: Plan['policy']['equipment'] = {}) =>
      changed((plan) => ({
        ...plan,
        policy: { ...plan.policy, equipment },
        devices: plan.devices.map((device) =>
          device.id === 'desk-charger'
            ? { ...device, ports: device.ports.map((port) => ({ ...port, gives: 45 })) }
            : device,
        ),
      }))
    expect(codes(hungry(), 'r-13').flat()).toContain('larger charger')
    const charger = (copy: Copy) =>
      waysOf(copy, 'r-13').ways.find(({ moves: [move] }) => move?.code === 'larger charger')?.price
    expect([charger(hungry()), charger(hungry({ charger: 44.5 })), charger(hungry({ charger: 0 }))]).toEqual([
      null,
      44.5,
      0,
    ])
  })
  it('takes a lead that does not do it alone, with something else beside it', () => {
    // two large pictures and nothing in the drawer: whatever lead there is, the first picture holds what the second would need
    const bare = changed((plan) => ({
      ...plan,
      cables: [],
      kinds: [],
      observations: [],
      sessions: [],
      soaks: [],
      runs: plan.runs.map((run) => ({ ...run, leads: [] })),
      needs: plan.needs.map((need) =>
        need.kind === 'picture' && need.from === 'gallery-laptop'
          ? { ...need, mode: { ...need.mode, width: 3840, height: 2160, refresh: 60 } }
          : need,
      ),
    }))
    const { ways } = waysOf(bare, 'r-09')
    expect(ways[0]).toMatchObject({ after: 'clear', worse: [] })
    for (const way of ways) {
      expect(way.moves.map(({ code }) => code)).toEqual(['bought lead', 'lesser picture'])
      takes(bare, 'r-09', way)
    }
  })
  it('says what comes nearest where nothing helps', () => {
    const retired = changed((plan) => ({
      ...plan,
      devices: plan.devices.map((device) =>
        device.id === 'helm'
          ? { ...device, ports: device.ports.map((port) => ({ ...port, connector: 'lc' as const })) }
          : device,
      ),
    }))
    const { ways, closest, tried } = waysOf(retired, 'r-08')
    expect(ways).toEqual([])
    expect(tried).toBe(0)
    expect(closest?.leading.reason.code).toBe('ends-do-not-mate')
  })
})
