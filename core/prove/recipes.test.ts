import { describe, expect, it } from 'vitest'
import { demo } from '../../tests/support/demo-plan'
import { applyChange } from '../change/apply'
import { acceptRun, withdrawAcceptance } from '../change/changes/prove'
import { copyOf } from '../change/copy'
import { assessAnew } from '../checks/assess'
import type { Plan } from '../plan/plan'
import { indexPlan } from '../plan/site-index'
import { laidCables } from '../vocabulary/run'
import { offeredRecipes, recipesOf } from './recipes'

/** The demo with every run of known kinds accepted. */
function accepted(less: string | null): Plan {
  let copy = copyOf({ ...demo, observations: [] })
  for (const run of demo.runs) {
    let number = 0
    const witness = {
      at: '2026-11-20T10:00:00Z',
      by: undefined,
      newId: () => {
        number += 1
        return `o-${run.id}-${number}`
      },
    }
    if (run.leads.length === 0 || laidCables(run).length !== run.leads.length) continue
    const made = acceptRun(run, { less, waived: [], conditions: null, where: {}, rests: {} }, witness)
    const applied = applyChange(copy, made)
    if (!('copy' in applied)) throw new Error(JSON.stringify(applied))
    copy = applied.copy
  }
  return copy.plan
}

describe('a proved chain', () => {
  const plan = accepted(null)
  const recipes = recipesOf(indexPlan(plan))
  it('is one that was accepted with nothing missing, of cables that others can have, too', () => {
    expect(recipes.length).toBeGreaterThan(0)
    for (const { leads, tag } of recipes) {
      const run = plan.runs.find((each) => each.tag === tag)
      expect(leads).toHaveLength(run?.leads.length ?? -1)
    }
    expect(recipesOf(indexPlan(accepted('only for now')))).toEqual([])
    expect(recipesOf(indexPlan({ ...demo, observations: [] }))).toEqual([])
  })
  it('is offered to runs between such ends that are no longer, judged as it would lie there', () => {
    const site = assessAnew(plan)
    for (const run of plan.runs)
      for (const { recipe, edit, grade, missing } of offeredRecipes(site, run, recipes, 1)) {
        expect(recipe.route).toBeGreaterThanOrEqual(run.route.length - 1e-9)
        expect(recipe.tag).not.toBe(run.tag)
        expect(edit === null).toBe(missing.length > 0)
        if (!edit) continue
        const laid = plan.runs.map((each) => (each.id === run.id ? (edit.value as typeof run) : each))
        const verdict = assessAnew({ ...plan, runs: laid }).assessment.runs.find(({ id }) => id === run.id)
        expect(grade).toBe(verdict?.grade)
      }
  })
  it('of another site names the kinds that this catalogue lacks, and is not laid without them', () => {
    const site = assessAnew({
      ...plan,
      site: { ...plan.site, name: 'Elsewhere' },
      kinds: [],
      cables: plan.cables.map(({ kind: _, ...cable }) => cable),
    })
    const offered = plan.runs.flatMap((run) => offeredRecipes(site, run, recipes, 1))
    expect(offered.length).toBeGreaterThan(0)
    for (const { edit, missing } of offered) {
      expect(edit).toBeNull()
      expect(missing.length).toBeGreaterThan(0)
    }
  })
  it('whose acceptance was taken back is none', () => {
    const [first] = recipes
    const run = plan.runs.find(({ tag }) => tag === first?.tag)
    if (!run) throw new Error('it was accepted')
    const back = withdrawAcceptance(run, { at: '2026-11-21T10:00:00Z', by: undefined, newId: () => 'o-back' })
    const applied = applyChange(copyOf(plan), back)
    if (!('copy' in applied)) throw new Error('it fits')
    expect(recipesOf(indexPlan(applied.copy.plan)).map(({ tag }) => tag)).not.toContain(run.tag)
  })
})
