import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { walkNeeds } from '../checks/assess'
import { sentence } from '../checks/sentences'
import type { Plan } from '../plan/plan'
import { readPlanText } from '../plan/read'
import { indexPlan } from '../plan/site-index'
import { candidateSentence } from './candidate-sentence'
import { rankCables } from './rank'

const read = readPlanText(readFileSync('demo/saltmarsh.json', 'utf8'))
if (!read.ok) throw new Error('the demo plan has faults')
const demo = read.plan

function ranked(runId: string, plan: Plan = demo) {
  const index = indexPlan(plan)
  const run = plan.runs.find((candidate) => candidate.id === runId) as Plan['runs'][number]
  return rankCables(index, run, walkNeeds(index).crossings.get(runId) ?? [])
}

describe('the drawer ranked for a run', () => {
  it('puts what does the job first, and of those the least lead that does', () => {
    const order = ranked('r-12')
    const grades = order.map((candidate) => ['clear', 'tight', 'blocked'].indexOf(candidate.grade))
    expect([...grades].sort()).toEqual(grades)
    const clear = order.filter((candidate) => candidate.grade === 'clear' && candidate.laidIn === null)
    expect(clear.map((candidate) => candidate.marked)).toEqual(
      [...clear.map((candidate) => candidate.marked)].sort((one, other) => one - other),
    )
    expect(clear.length).toBeGreaterThan(1)
  })
  it('offers the supplied lead first where it does the job', () => {
    const route = {
      ...demo,
      runs: demo.runs.map((run) => (run.id === 'r-09' ? { ...run, route: { length: 0.7 } } : run)),
    }
    expect(ranked('r-09', route)[0]).toMatchObject({ supplied: true, grade: 'clear', cable: { tag: 'C-0015' } })
  })
  it('leaves out what is retired and what does not plug in', () => {
    const tags = ranked('r-09').map((candidate) => candidate.cable.tag)
    expect(tags).not.toContain('C-0049')
    expect(tags).not.toContain('C-0001')
  })
  it('puts a lead that lies in another run behind a free one, and says where it lies', () => {
    const clear = ranked('r-17').filter((candidate) => candidate.grade === 'clear')
    const firstLaid = clear.findIndex((candidate) => candidate.laidIn !== null)
    expect(firstLaid).toBeGreaterThan(0)
    expect(clear.slice(firstLaid).filter((candidate) => candidate.laidIn === null)).toEqual([])
    const taken = ranked('r-17').find((candidate) => candidate.cable.tag === 'C-0029')
    if (!taken) throw new Error('C-0029 fits R-17')
    expect(candidateSentence(taken)).toContain('It lies in R-15 now.')
  })
  it('gives each its reason in one line', () => {
    const all = ranked('r-17')
    expect(new Set(all.map(({ grade }) => grade)).size).toBeGreaterThan(1)
    for (const candidate of all) {
      const why = candidate.leading ? sentence(candidate.leading) : ''
      expect(candidateSentence(candidate)).toContain(candidate.grade === 'clear' ? ' to spare.' : why)
      expect(why).not.toBe('')
    }
  })
})
