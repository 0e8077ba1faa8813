import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { cases } from '../../tests/support/laws'
import { madeUpCopy, many } from '../../tests/support/made-up-walk'
import { defaultPolicy } from '../vocabulary/policy'
import { otherChoices } from '../vocabulary/policy-choices'
import { finished } from '../work/in-slices'
import { assess, assessAnew } from './assess'
import { policyEffects } from './policy-effect'
import { reassess } from './reassess'

const choices = [{ length: 'book' as const }, ...otherChoices(defaultPolicy).map(({ choice }) => choice)]

describe('what another choice would change', () => {
  it('is what judging the site by it changes, and a choice forth and back restores every verdict', () => {
    fc.assert(
      fc.property(many, fc.constantFrom(...choices), (changes, choice) => {
        const { plan } = madeUpCopy(changes)
        const site = assessAnew(plan)
        const [effect] = finished(policyEffects(site, [choice]))
        const there = { ...plan, policy: { ...plan.policy, ...choice } }
        const by = assess(there).runs
        expect(effect?.turned.map(({ id, from, to }) => [id, from, to])).toEqual(
          site.assessment.runs.flatMap(({ id, grade }, at) =>
            by[at]?.grade === grade ? [] : [[id, grade, by[at]?.grade]],
          ),
        )
        const back = { ...there, policy: { ...plan.policy } }
        expect(reassess(reassess(site, there), back).assessment).toEqual(site.assessment)
      }),
      { numRuns: cases(60) },
    )
  })
  it('is nothing for the choice that holds already', () => {
    fc.assert(
      fc.property(many, (changes) => {
        const site = assessAnew(madeUpCopy(changes).plan)
        const { length, reservation } = site.index.plan.policy
        const effects = finished(policyEffects(site, [{ length }, { reservation }]))
        expect(effects.flatMap(({ turned }) => turned)).toEqual([])
      }),
      { numRuns: cases(20) },
    )
  })
})
