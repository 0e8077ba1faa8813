import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { cases, inProportion } from '../../tests/support/laws'
import { madeUpCopy, many, start } from '../../tests/support/made-up-walk'
import { applyChange } from '../change/apply'
import type { Copy } from '../change/change'
import { assess, assessAnew } from '../checks/assess'
import { GRADES } from '../checks/finding'
import { finished } from '../work/in-slices'
import { proposeLeads } from './lead-proposal'

const proposalFor = ({ plan, place }: Copy) =>
  finished(
    proposeLeads(
      assessAnew(plan),
      plan.runs.map(({ id }) => id),
      place,
    ),
  )

describe('the best from the drawer for many runs', () => {
  it('whatever the plan: it can be taken, betters each run it names as it says, takes no lead twice, and says what gets worse', () => {
    let proposed = 0
    fc.assert(
      fc.property(many, (changes) => {
        const copy = madeUpCopy(changes)
        const { leads, left, edits, worse } = proposalFor(copy)
        proposed += leads.length
        const before = assess(copy.plan).runs
        const waiting = before.filter(({ grade }) => grade !== 'clear')
        expect(leads.length + left.length).toBe(waiting.length)
        expect(new Set(leads.map(({ cable }) => cable)).size).toBe(leads.length)
        if (edits.length === 0) return
        const applied = applyChange(copy, { edits })
        if (applied.outcome !== 'applied') throw new Error(JSON.stringify(applied))
        const after = new Map(assess(applied.copy.plan).runs.map(({ id, grade }) => [id, grade]))
        for (const { run, before: was, after: then } of leads) {
          expect(after.get(run)).toBe(then)
          expect(GRADES.indexOf(then)).toBeGreaterThan(GRADES.indexOf(was))
        }
        const poorer = before.filter(
          ({ id, grade }) => GRADES.indexOf(after.get(id) ?? 'clear') < GRADES.indexOf(grade),
        )
        expect(worse.length).toBeGreaterThanOrEqual(poorer.length)
      }),
      { numRuns: cases(60) },
    )
    expect(proposed).toBeGreaterThan(inProportion(100))
  })
  it('leaves what the drawer cannot better, and says why', () => {
    const { left } = proposalFor(start)
    expect(left.map(({ tag, leading }) => [tag, leading?.reason.code])).toEqual([
      ['R-04', 'rate'],
      ['R-16', 'lead-without-power'],
    ])
  })
})
