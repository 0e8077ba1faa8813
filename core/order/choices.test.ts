import fc from 'fast-check'
import { expect, it } from 'vitest'
import { demo } from '../../tests/support/demo-plan'
import { cases, inProportion } from '../../tests/support/laws'
import { madeUpCopy, many } from '../../tests/support/made-up-walk'
import { applyChange } from '../change/apply'
import type { Copy } from '../change/change'
import { takeOrder } from '../change/changes/orders'
import { copyOf } from '../change/copy'
import { assessAnew } from '../checks/assess'
import { byId } from '../plan/lookup'
import type { Plan } from '../plan/plan'
import { EQUIPMENT } from '../vocabulary/policy'
import { finished } from '../work/in-slices'
import { articlesOf } from './articles'
import { choicesOf, wantingRuns } from './choices'

/** Each of the first and last choices of some runs, taken as an order takes it, comes to what it says. Answers how many there were, and of these set something up. */
function comesTo(copy: Copy, runs: readonly string[]): { looked: number; setUps: number } {
  const site = assessAnew(copy.plan)
  let [looked, setUps] = [0, 0]
  for (const { run, choices } of finished(choicesOf(site, runs, copy.place))) {
    expect(new Set(choices.map(({ id }) => id)).size).toBe(choices.length)
    // what is set up beside the leads comes last
    for (const { leads, setUp, grade, articles } of [...choices.slice(0, 5), ...choices.slice(5).slice(-2)]) {
      const { edits } = takeOrder(copy.plan, copy.place, { runs: [{ run, leads }], alters: setUp?.edits, lines: [] })
      const applied = edits.length === 0 ? null : applyChange(copy, { edits })
      if (applied && applied.outcome !== 'applied') throw new Error(JSON.stringify(applied))
      const laid = assessAnew(applied?.copy.plan ?? copy.plan)
      const verdict = byId(laid.assessment.runs).get(run)
      expect(verdict?.grade, `${run} ${JSON.stringify([leads, setUp?.words])}`).toBe(grade)
      for (const article of articles) expect(articlesOf(site.index).has(article)).toBe(true)
      looked += 1
      setUps += Number(setUp !== undefined)
    }
  }
  return { looked, setUps }
}

it('each choice, laid alone, makes of its run what it says, whatever the site', () => {
  let all = 0
  fc.assert(
    fc.property(many, fc.nat(), (changes, one) => {
      const copy = madeUpCopy(changes)
      const runs = wantingRuns(assessAnew(copy.plan))
      all += comesTo(copy, runs.slice(one % Math.max(1, runs.length)).slice(0, 3)).looked
    }),
    { numRuns: cases(25) },
  )
  expect(all).toBeGreaterThan(inProportion(50))
})

it('so does what is set up beside the leads, where it has its price: a charger, an extender pair', () => {
  const equipment = Object.fromEntries(EQUIPMENT.map((each, at) => [each, 20 + 15 * at]))
  let all = 0
  fc.assert(
    fc.property(fc.integer({ min: 15, max: 60 }), fc.integer({ min: 4, max: 60 }), (gives, length) => {
      const plan: Plan = {
        ...demo,
        policy: { ...demo.policy, equipment },
        devices: demo.devices.map((device) =>
          device.id === 'desk-charger'
            ? { ...device, ports: device.ports.map((port) => ({ ...port, gives })) }
            : device,
        ),
        runs: demo.runs.map((run) => (run.id === 'r-17' ? { ...run, route: { length } } : run)),
      }
      all += comesTo(copyOf(plan), ['r-13', 'r-17']).setUps
    }),
    { numRuns: cases(15) },
  )
  expect(all).toBeGreaterThan(inProportion(5))
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
    { numRuns: cases(50) },
  )
})
