import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { demo } from '../../tests/support/demo-plan'
import { whereAt } from '../bench/where'
import { assessAnew } from '../checks/assess'
import type { Observation } from '../observe/observation'
import { laidCables, type Run } from '../vocabulary/run'
import { predictedSituation, predictRun } from './predict-run'
import { proofsOf } from './proof'
import { orderTests, referenceOf, type TestVisit, visitsOf } from './test-plan'

type Made = { hands: number; waits: number; socket: number; run: number; risky: boolean }
const visitOf = ({ hands, waits, socket, run, risky }: Made): TestVisit => ({
  run: { id: `r${run}` } as Run,
  socket: { device: 'd', port: `p${socket}` },
  tests: [],
  plugs: 0,
  hands,
  waits,
  risk: risky ? 'it got hot' : null,
})
const made = fc.record({
  hands: fc.integer({ min: 1, max: 20 }),
  waits: fc.constantFrom(0, 5, 60, 500),
  socket: fc.integer({ min: 0, max: 3 }),
  run: fc.integer({ min: 0, max: 3 }),
  risky: fc.boolean(),
})

/** When an order is over, worked out anew: one pair of hands, one soak at a time for a run and for a socket. */
function overAt(order: readonly TestVisit[]): number {
  const busy: { run: string; port: string; end: number }[] = []
  let hands = 0
  for (const { run, socket, hands: own, waits } of order) {
    const blocked = busy.filter((each) => each.run === run.id || each.port === socket.port).map(({ end }) => end)
    hands = Math.max(hands, ...blocked) + own
    busy.push({ run: run.id, port: socket.port, end: hands + waits })
  }
  return Math.max(0, ...busy.map(({ end }) => end))
}
const ordersOf = <T>(list: readonly T[]): T[][] =>
  list.length <= 1
    ? [[...list]]
    : list.flatMap((each, at) => ordersOf([...list.slice(0, at), ...list.slice(at + 1)]).map((rest) => [each, ...rest]))

describe('the order of tests', () => {
  it('of a few is over as early as the best of all orders that leave what is risky to the end', () => {
    fc.assert(
      fc.property(fc.array(made, { maxLength: 5 }), (all) => {
        const visits = all.map(visitOf)
        const plan = orderTests(visits)
        const allowed = ordersOf(visits).filter((order) => {
          const first = order.findIndex(({ risk }) => risk !== null)
          return first < 0 || order.slice(first).every(({ risk }) => risk !== null)
        })
        expect(plan.exact).toBe(true)
        expect(plan.ends).toBe(Math.min(...allowed.map(overAt)))
        expect(overAt(plan.visits)).toBe(plan.ends)
      }),
    )
  })
  it('of many says no more than is true of any order: the bound is never later than the best', () => {
    fc.assert(
      fc.property(fc.array(made, { minLength: 8, maxLength: 30 }), (all) => {
        const visits = all.map(visitOf)
        const plan = orderTests(visits)
        expect(plan.atLeast).toBeLessThanOrEqual(plan.ends)
        expect(plan.visits).toHaveLength(visits.length)
        expect(plan.hands).toBe(visits.reduce((sum, { hands }) => sum + hands, 0))
        // any other order is over no sooner than the bound
        expect(overAt(visits)).toBeGreaterThanOrEqual(plan.atLeast)
        expect(overAt([...visits].reverse())).toBeGreaterThanOrEqual(plan.atLeast)
        expect(overAt(visits.toSorted((one, other) => one.hands - other.hands))).toBeGreaterThanOrEqual(plan.atLeast)
        const firstRisky = plan.visits.findIndex(({ risk }) => risk !== null)
        if (firstRisky >= 0) expect(plan.visits.slice(firstRisky).every(({ risk }) => risk !== null)).toBe(true)
      }),
    )
  })
})

describe('the tests of a site', () => {
  const site = assessAnew(demo)
  it('are those that have not passed, and of the stale ones only those', () => {
    const open = visitsOf(site, 'open')
    const stale = visitsOf(site, 'stale')
    expect(stale.visits.map(({ run }) => run.tag)).toEqual(['R-02', 'R-03'])
    expect(open.visits.length).toBeGreaterThan(stale.visits.length)
    for (const { tests } of open.visits) for (const { standing } of tests) expect(standing.passed).toBe(false)
    // what a soak shows as well is not tested apart
    for (const { tests } of open.visits) {
      const kinds = tests.map(({ standing }) => standing.test.kind)
      expect(kinds.includes('soak') && kinds.includes('link')).toBe(false)
    }
    expect(open.spared).toBeGreaterThan(0)
  })
  it('begin and end with the figure that passed last', () => {
    expect(referenceOf(site)).toBeNull()
    const run = demo.runs.find(({ id }) => id === 'r-18')
    if (!run) throw new Error('the demo has it')
    const read = (id: string, at: string, rate: number): Observation => ({
      id,
      at,
      kind: 'reading',
      measure: 'write',
      rate,
      subject: { run: run.id, leads: laidCables(run) },
      where: whereAt(site.index, run.from, run.to),
    })
    const proof = proofsOf(site).get(run.id)
    const write = proof?.tests.find(({ test }) => test.kind === 'write')
    if (!write) throw new Error('a disk hangs on it')
    const { low } = predictRun(
      predictedSituation(site.index, run, site.walks.crossings.get(run.id) ?? [], run.from),
      write.test,
    ) as {
      low: number
    }
    const seen = [read('o-1', '2026-11-20T10:00:00Z', low * 1.05), read('o-2', '2026-11-21T10:00:00Z', low * 1.06)]
    const tested = assessAnew({ ...demo, observations: [...demo.observations, ...seen] })
    expect(referenceOf(tested)).toMatchObject({ run: { id: 'r-18' }, at: '2026-11-21T10:00:00Z' })
  })
})
