import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { benchSite } from '../../server/command/bench-site'
import { walkNeeds } from '../checks/assess'
import type { Plan } from '../plan/plan'
import { readPlanText } from '../plan/read'
import { indexPlan } from '../plan/site-index'
import { candidatesOf, rankCables } from './rank'
import { gradeAt, rankAll, rankRun } from './rank-all'

const read = readPlanText(readFileSync('demo/saltmarsh.json', 'utf8'))
if (!read.ok) throw new Error('the demo plan has faults')

/** The plain double loop. */
function plainly(plan: Plan): Record<string, string[]> {
  const index = indexPlan(plan)
  const { crossings } = walkNeeds(index)
  return Object.fromEntries(
    plan.runs.map((run) => [
      run.tag,
      rankCables(index, run, crossings.get(run.id) ?? []).map(({ cable, grade }) => `${cable.tag} ${grade}`),
    ]),
  )
}

function atOnce(plan: Plan): Record<string, string[]> {
  const { cables, byRun } = rankAll(indexPlan(plan))
  return Object.fromEntries(
    plan.runs.map((run) => {
      const ranked = byRun.get(run.id)
      return [
        run.tag,
        ranked ? [...ranked.order].map((at, place) => `${cables[at]?.tag} ${gradeAt(ranked, place)}`) : [],
      ]
    }),
  )
}

/** Each run by itself, as its page asks for it, and only then what is said of each cable. */
function oneByOne(plan: Plan): Record<string, string[]> {
  const index = indexPlan(plan)
  const { crossings } = walkNeeds(index)
  return Object.fromEntries(
    plan.runs.map((run) => {
      const crossed = crossings.get(run.id) ?? []
      const ranked = candidatesOf(index, run, crossed, rankRun(index, run, crossed))
      return [run.tag, ranked.map(({ cable, grade }) => `${cable.tag} ${grade}`)]
    }),
  )
}

describe('every cable for every run', () => {
  it.each([
    ['the demo', read.plan],
    ['the demo by the bench', { ...read.plan, policy: { ...read.plan.policy, length: 'bench' as const } }],
    [
      'the demo with supplied cables only',
      { ...read.plan, policy: { ...read.plan.policy, cables: 'supplied' as const } },
    ],
    ['a made-up site', benchSite(120, 140)],
  ])('comes out as one run after the other: %s', (_name, plan) => {
    expect(atOnce(plan)).toEqual(plainly(plan))
    expect(oneByOne(plan)).toEqual(plainly(plan))
  })
})
