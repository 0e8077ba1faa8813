import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { demo } from '../../tests/support/demo-plan'
import { cases, inProportion } from '../../tests/support/laws'
import { learnedMaps } from '../../tests/support/learned-maps'
import { choice, madeUpEdit } from '../../tests/support/made-up-changes'
import { edited, many, start, walk } from '../../tests/support/made-up-walk'
import { anew } from '../../tests/support/small-site'
import { assess, assessAnew } from '../checks/assess'
import { reassess } from '../checks/reassess'
import { learnedOf } from '../observe/learned'
import type { Plan } from '../plan/plan'
import { readPlan } from '../plan/read'
import { bytesGrown, bytesOfPlan } from '../plan/write'
import { applyChange, replay } from './apply'
import type { Copy, Edit } from './change'

const asFile = (plan: Plan): Plan => JSON.parse(JSON.stringify(plan))
describe('whatever is changed', () => {
  it('what is accepted is a plan that could be a file, and what could not be one is refused', () => {
    let accepted = 0
    fc.assert(
      fc.property(many, (changes) => {
        let copy = start
        for (const choices of changes) {
          const edits = edited(copy, choices)
          const applied = applyChange(copy, { edits })
          const whole = readPlan(asFile(replay(copy, edits).copy.plan))
          if (applied.outcome === 'applied') {
            accepted += 1
            expect(whole).toEqual({ ok: true, plan: applied.copy.plan })
            const { bytes, grown, plan } = applied.copy
            expect([bytes, grown]).toEqual([bytesOfPlan(plan), bytesGrown(plan)])
            copy = applied.copy
          } else expect(whole.ok).toBe(false)
        }
      }),
      { numRuns: cases(60) },
    )
    expect(accepted).toBeGreaterThan(inProportion(50))
  })

  it('a change and its inverse leave the plan as it was, in the same order', () => {
    fc.assert(
      fc.property(many, (changes) => {
        walk(changes, (before, after, inverse) => {
          const back = applyChange(after, { edits: inverse, undoes: 'x' })
          expect(back.outcome).toBe('applied')
          if (back.outcome === 'applied') expect(back.copy.plan).toEqual(before.plan)
        })
      }),
      { numRuns: cases(80) },
    )
  })

  it('assessing what a change touches again gives what assessing anew gives', () => {
    fc.assert(
      fc.property(many, (changes) => {
        let assessed = assessAnew(demo)
        walk(changes, (_, { plan }) => {
          assessed = reassess(assessed, plan)
          expect(assessed.assessment).toEqual(assess(anew(plan)))
        })
      }),
      { numRuns: cases(80) },
    )
  })

  it('what is learnt from what was added and taken away is what is learnt from all of it', () => {
    learnedOf(demo)
    fc.assert(
      fc.property(many, (changes) => {
        walk(changes, (_, { plan }) => expect(learnedMaps(plan)).toEqual(learnedMaps(anew(plan))))
      }),
      { numRuns: cases(80) },
    )
  })

  it('the order of changes to different things does not matter', () => {
    let compared = 0
    fc.assert(
      fc.property(choice, choice, (first, second) => {
        const [one, other] = [madeUpEdit(start, first, 1), madeUpEdit(start, second, 2)]
        const stays = [one, other].every(
          ({ base, value, before }) => base !== null && value !== null && before === undefined,
        )
        if (!stays || `${one.list}/${one.id}` === `${other.list}/${other.id}`) return
        const changedBy = (...edits: Edit[]) =>
          edits.reduce<Copy | null>((copy, edit) => {
            const applied = copy && applyChange(copy, { edits: [edit] })
            return applied?.outcome === 'applied' ? applied.copy : null
          }, start)?.plan
        const [forth, back] = [changedBy(one, other), changedBy(other, one)]
        if (!forth || !back) return
        compared += 1
        expect(forth).toEqual(back)
      }),
      { numRuns: cases(300) },
    )
    expect(compared).toBeGreaterThan(inProportion(20))
  })

  it('the copy it is applied to stays as it was', () => {
    const before = JSON.stringify(start.plan)
    fc.assert(
      fc.property(many, (changes) => walk(changes, () => {})),
      { numRuns: cases(20) },
    )
    expect(JSON.stringify(start.plan)).toBe(before)
  })
})
