import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { cases } from '../../tests/support/laws'
import { madeUpCopy, many } from '../../tests/support/made-up-walk'
import { drawn, smallSite } from '../../tests/support/small-site'
import { byId } from '../plan/lookup'
import type { Plan } from '../plan/plan'
import type { Run, RunLead } from '../vocabulary/run'
import { assess } from './assess'
import { severity } from './finding'

const gradeOf = (plan: Plan, run: string): number =>
  severity[assess(plan).runs.find(({ id }) => id === run)?.grade ?? 'blocked']
const withRun = (plan: Plan, changed: Run): Plan => ({
  ...plan,
  runs: plan.runs.map((run) => (run.id === changed.id ? changed : run)),
})
/** Nobody said what a controller carries: what fares better on one run of it takes nothing from the others. */
const unshared = (plan: Plan): Plan => ({
  ...plan,
  devices: plan.devices.map(({ controllers: _, ...device }) => device),
})
const plans = fc.oneof(
  many.map((changes) => unshared(madeUpCopy(changes).plan)),
  drawn.map((numbers) => unshared(smallSite(numbers))),
)
/** A plan and one of its runs. */
const oneOf = fc
  .tuple(plans, fc.nat())
  .map(([plan, at]) => ({ plan, run: plan.runs[at % Math.max(1, plan.runs.length)] }))

describe('whatever the plan', () => {
  it('a shorter route is never worse', () => {
    fc.assert(
      fc.property(oneOf, fc.integer({ min: 1, max: 9 }), ({ plan, run }, tenths) => {
        fc.pre(run != null)
        const { legs: _, follows: __, ...route } = run.route
        const typed = withRun(plan, { ...run, route })
        const shorter = withRun(plan, { ...run, route: { ...route, length: (route.length * tenths) / 10 } })
        expect(gradeOf(shorter, run.id), run.tag).toBeLessThanOrEqual(gradeOf(typed, run.id))
      }),
      { numRuns: cases(100) },
    )
  })
  it('mains at a place is never worse than none, nor is what nobody knows', () => {
    fc.assert(
      fc.property(oneOf, ({ plan, run }) => {
        fc.pre(run != null)
        const all = (mains: Plan['places'][number]['mains']): Plan => ({
          ...plan,
          places: plan.places.map((place) => ({ ...place, mains })),
        })
        const none = gradeOf(all(false), run.id)
        for (const mains of [true, 'not known'] as const)
          expect(gradeOf(all(mains), run.id), run.tag).toBeLessThanOrEqual(none)
      }),
      { numRuns: cases(80) },
    )
  })
  it('a charger with twice the watts is never worse', () => {
    fc.assert(
      fc.property(oneOf, ({ plan, run }) => {
        fc.pre(run != null)
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
      { numRuns: cases(80) },
    )
  })
  it('a lead that is the same from both ends may lie either way round', () => {
    fc.assert(
      fc.property(plans, (plan) => {
        const cables = byId(plan.cables)
        const alike = (lead: RunLead): boolean => {
          const cable = 'cable' in lead ? cables.get(lead.cable) : undefined
          const [one, other] = cable?.ends ?? []
          const sided = cable?.oneWay || cable?.construction === 'optical' || cable?.feedEnd !== undefined
          return cable !== undefined && !sided && JSON.stringify(one) === JSON.stringify(other)
        }
        const turned = plan.runs.map((run) => ({
          ...run,
          leads: run.leads.map((lead) => (alike(lead) ? { ...lead, reversed: !lead.reversed } : lead)),
        }))
        expect(assess({ ...plan, runs: turned })).toEqual(assess(plan))
      }),
      { numRuns: cases(60) },
    )
  })
  it('data gets through alike from whichever end a run is drawn, where either port can be the host', () => {
    const drawnFromTheOther = (run: Run): Run => ({
      ...run,
      from: run.to,
      to: run.from,
      leads: run.leads.toReversed().map((lead) => ({ ...lead, reversed: !lead.reversed })),
    })
    fc.assert(
      fc.property(plans, (made) => {
        const plan: Plan = {
          ...made,
          // behind a hub the end that a run is drawn from is the one toward the host
          devices: made.devices.map((device) => ({
            ...device,
            kind: device.kind === 'computer' ? 'computer' : 'other',
            ports: device.ports.map(({ displayport: _, hdmi: __, captive: ___, ...port }) => ({
              ...port,
              role: 'either',
            })),
          })),
          // what was seen belongs to the socket at the host end; leads that go one way, or are fed at one end, to theirs
          observations: made.observations.filter(({ kind }) => kind === 'statement'),
          cables: made.cables.map((cable) => ({ ...cable, oneWay: false, feed: 'bus' })),
        }
        const linksOf = (of: Plan) =>
          assess(of).runs.map(({ mode, findings }) => [
            mode,
            // a lead that plugs into neither port, or into one of them, does not fit from either end
            new Set(
              findings
                .filter(({ check }) => check === 'rate' || check === 'link mode' || check === 'fit')
                .map(({ check, grade, have, need, reason }) => [check, grade, have, need, reason.code].join()),
            ),
          ])
        expect(linksOf({ ...plan, runs: plan.runs.map(drawnFromTheOther) })).toEqual(linksOf(plan))
      }),
      { numRuns: cases(60) },
    )
  })
})
