import fc from 'fast-check'
import { expect, it } from 'vitest'
import { madeUpCopy, many } from '../../tests/support/made-up-walk'
import { assessAnew } from '../checks/assess'
import { byId } from '../plan/lookup'
import { put } from '../plan/put'
import { finished } from '../work/in-slices'
import { articlesOf } from './articles'
import { choicesOf, wantingRuns } from './choices'

it('each choice, laid alone, makes of its run what it says, whatever the site', () => {
  let looked = 0
  fc.assert(
    fc.property(many, fc.nat(), (changes, one) => {
      const copy = madeUpCopy(changes)
      const site = assessAnew(copy.plan)
      const runs = wantingRuns(site)
      const asked = runs.slice(one % Math.max(1, runs.length)).slice(0, 3)
      for (const { run, choices } of finished(choicesOf(site, asked, copy.place))) {
        expect(new Set(choices.map(({ id }) => id)).size).toBe(choices.length)
        for (const choice of choices.slice(0, 6)) {
          const now = byId(copy.plan.runs).get(run)
          if (!now) throw new Error(`no run ${run}`)
          const laid = assessAnew(put(copy.plan, 'runs', { ...now, leads: [...choice.leads] }))
          const verdict = byId(laid.assessment.runs).get(run)
          expect(verdict?.grade, `${run} ${JSON.stringify(choice.leads)}`).toBe(choice.grade)
          for (const article of choice.articles) expect(articlesOf(site.index).has(article)).toBe(true)
          looked += 1
        }
      }
    }),
    { numRuns: 25 },
  )
  expect(looked).toBeGreaterThan(50)
})

it('every run that is not clear, is empty or waits for something to buy wants a lead, and no other', () => {
  fc.assert(
    fc.property(many, (changes) => {
      const { plan } = madeUpCopy(changes)
      const site = assessAnew(plan)
      const wanting = new Set(wantingRuns(site))
      for (const { id, grade } of site.assessment.runs) {
        const leads = byId(plan.runs).get(id)?.leads ?? []
        const settled = grade === 'clear' && leads.length > 0 && leads.every((lead) => 'cable' in lead)
        expect(wanting.has(id)).toBe(!settled)
      }
    }),
    { numRuns: 50 },
  )
})
