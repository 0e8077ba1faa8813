import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { cases, inProportion } from '../../tests/support/laws'
import { madeUpCopy, many } from '../../tests/support/made-up-walk'
import { applyChange } from '../change/apply'
import { assessAnew } from '../checks/assess'
import { byId } from '../plan/lookup'
import { atLeast } from '../quantity/limit'
import { finished } from '../work/in-slices'
import { proposeKind } from './kind-proposal'

describe('one kind for many runs', () => {
  it('spans each run it is proposed for, can be taken, and makes of it what it says, whatever the site', () => {
    let proposed = 0
    fc.assert(
      fc.property(many, fc.nat(97), (changes, one) => {
        const copy = madeUpCopy(changes)
        const { plan } = copy
        const kind = plan.kinds[one % plan.kinds.length]
        fc.pre(kind != null)
        const site = assessAnew(plan)
        const runs = plan.runs.map(({ id }) => id)
        const proposal = finished(proposeKind(site, { runs, kind: kind.id }, copy.place))
        expect(proposal.leads.length + proposal.left.length).toBe(runs.length)
        if (proposal.edits.length === 0) return
        const taken = applyChange(copy, { edits: proposal.edits })
        if (taken.outcome !== 'applied') throw new Error(JSON.stringify(taken))
        const verdicts = byId(assessAnew(taken.copy.plan).assessment.runs)
        for (const lead of proposal.leads) {
          proposed += 1
          const [laid] = byId(taken.copy.plan.runs).get(lead.run)?.leads ?? []
          const route = byId(plan.runs).get(lead.run)?.route.length ?? 0
          expect(laid && 'kind' in laid && atLeast(laid.length, route)).toBe(true)
          expect(verdicts.get(lead.run)?.grade).toBe(lead.after)
        }
      }),
      { numRuns: cases(30) },
    )
    expect(proposed).toBeGreaterThan(inProportion(30))
  })
})
