import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { madeUpCopy, many } from '../../tests/support/made-up-walk'
import { drawn, smallSite } from '../../tests/support/small-site'
import type { Plan } from '../plan/plan'
import type { Run } from '../vocabulary/run'
import { assess } from './assess'
import { severity } from './finding'

const gradeOf = (plan: Plan, run: string): number =>
  severity[assess(plan).runs.find(({ id }) => id === run)?.grade ?? 'blocked']
const withRun = (plan: Plan, changed: Run): Plan => ({
  ...plan,
  runs: plan.runs.map((run) => (run.id === changed.id ? changed : run)),
})
const plans = fc.oneof(
  many.map((changes) => madeUpCopy(changes).plan),
  drawn.map(smallSite),
)
/** A plan and one of its runs. */
const oneOf = fc
  .tuple(plans, fc.nat())
  .map(([plan, at]) => ({ plan, run: plan.runs[at % Math.max(1, plan.runs.length)] }))

describe('whatever the plan', () => {
  it('a shorter route is never worse', () => {
    fc.assert(
      fc.property(oneOf, fc.integer({ min: 1, max: 9 }), ({ plan, run }, tenths) => {
        if (!run) return
        const { legs: _, follows: __, ...route } = run.route
        const typed = withRun(plan, { ...run, route })
        const shorter = withRun(plan, { ...run, route: { ...route, length: (route.length * tenths) / 10 } })
        expect(gradeOf(shorter, run.id), run.tag).toBeLessThanOrEqual(gradeOf(typed, run.id))
      }),
      { numRuns: 100 },
    )
  })
  it('mains at a place is never worse than none, nor is what nobody knows', () => {
    fc.assert(
      fc.property(oneOf, ({ plan, run }) => {
        if (!run) return
        const all = (mains: Plan['places'][number]['mains']): Plan => ({
          ...plan,
          places: plan.places.map((place) => ({ ...place, mains })),
        })
        const none = gradeOf(all(false), run.id)
        for (const mains of [true, 'not known'] as const)
          expect(gradeOf(all(mains), run.id), run.tag).toBeLessThanOrEqual(none)
      }),
      { numRuns: 80 },
    )
  })
  it('a charger with twice the watts is never worse', () => {
    fc.assert(
      fc.property(oneOf, ({ plan, run }) => {
        if (!run) return
        const stronger: Plan = {
          ...plan,
          devices: plan.devices.map((device) => ({
            ...device,
            ports: device.ports.map((port) =>
              port.gives === undefined || port.levels ? port : { ...port, gives: Math.min(240, port.gives * 2) },
            ),
          })),
        }
        const worst = (of: Plan) =>
          assess(of)
            .runs.find(({ id }) => id === run.id)
            ?.findings.filter(({ check }) => check === 'current' || check === 'bus budget')
            .filter(({ grade }) => grade === 'blocked').length ?? 0
        expect(worst(stronger), run.tag).toBeLessThanOrEqual(worst(plan))
      }),
      { numRuns: 80 },
    )
  })
})
