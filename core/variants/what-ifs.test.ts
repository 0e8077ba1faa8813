import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { demo } from '../../tests/support/demo-plan'
import { cases } from '../../tests/support/laws'
import { madeUpCopy, many, start } from '../../tests/support/made-up-walk'
import { applyChange } from '../change/apply'
import type { ChangeToMake, Copy } from '../change/change'
import { saveRun } from '../change/changes/run'
import { assess, assessAnew } from '../checks/assess'
import type { Plan } from '../plan/plan'
import { patch } from '../plan/put'
import { readPlan } from '../plan/read'
import { roomOf } from '../remedy/room'
import { keepWhatIf } from './keep-what-if'
import { type WhatIf, whatIfsFor } from './what-ifs'

const nothing: ChangeToMake = { what: { name: 'change run', about: [] }, edits: [] }

/** Everyone who may sit somewhere does, so that visitors are tried as well. */
const withVisitors = (plan: Plan): Plan => {
  const [host, ...others] = plan.devices.filter(({ kind }) => kind === 'computer')
  return host
    ? others
        .slice(0, 2)
        .reduce((now, { id }) => patch(now, 'devices', id, (each) => ({ ...each, visits: host.id })), plan)
    : plan
}

const whatIfsOf = (plan: Plan, run: Plan['runs'][number]): WhatIf[] => {
  const { index, walks } = assessAnew(plan)
  return whatIfsFor(index, [run], walks.crossings)
}

const gradesOf = (plan: Plan, among: Plan) => {
  const { runs, needs } = assess(plan)
  const ids = new Set([...among.runs, ...among.needs].map(({ id }) => id))
  return [...runs, ...needs].filter(({ id }) => ids.has(id)).map(({ id, grade }) => `${id} ${grade}`)
}

function kept(copy: Copy, made: ChangeToMake, run: string, words: string): Plan {
  const draft = keepWhatIf(copy, made, [run], words)
  if (!draft) throw new Error(`${words} can no longer be tried`)
  const applied = applyChange(copy, draft)
  if (applied.outcome !== 'applied') throw new Error(`${words}: ${JSON.stringify(applied)}`)
  const back = applyChange(applied.copy, { edits: applied.inverse })
  expect(back.outcome === 'applied' && back.copy.plan).toEqual(copy.plan)
  return applied.copy.plan
}

describe('what is tried on a run', () => {
  it('is judged and leaves the plan as it was; kept, it is what was shown and could be a file, and is taken back whole', () => {
    const sorts = new Set<string>()
    fc.assert(
      fc.property(many, fc.nat(), (changes, turn) => {
        const made = madeUpCopy(changes)
        const copy = { ...made, plan: withVisitors(made.plan) }
        const { index, walks } = assessAnew(copy.plan)
        const { runs } = copy.plan
        const powered = runs.find(({ id }) => walks.crossings.get(id)?.some(({ need }) => need.kind === 'power'))
        for (const run of [runs[turn % Math.max(1, runs.length)], powered]) {
          if (!run) continue
          const room = roomOf(index, run.id)
          const before = JSON.stringify(room)
          const whatIfs = whatIfsOf(copy.plan, run)
          expect(new Set(whatIfs.map(({ words }) => words)).size).toBe(whatIfs.length)
          for (const { words, sort, change } of whatIfs) {
            sorts.add(sort)
            const plan = kept(copy, nothing, run.id, words)
            expect(gradesOf(plan, room)).toEqual(gradesOf(change(room), room))
            expect(readPlan(JSON.parse(JSON.stringify(plan))).ok).toBe(true)
          }
          expect(JSON.stringify(room)).toBe(before)
        }
      }),
      { numRuns: cases(10) },
    )
    expect([...sorts].sort()).toEqual(['the picture', 'the site goes', 'the supply', 'who sits there'])
  })

  const run = demo.runs.find(({ id }) => id === 'r-09')
  if (!run) throw new Error('the demo has it')
  it('is kept with what was typed beside it, as one change', () => {
    const typed = { ...run, leads: [{ cable: 'c-0021', reversed: false }], note: 'tried' }
    const made = saveRun(demo, start.place, { run: typed, needs: [], had: [] })
    const plan = kept(start, made, run.id, 'by the bench')
    expect(plan.policy.length).toBe('bench')
    expect(plan.runs.find(({ id }) => id === run.id)).toEqual(typed)
    expect(
      keepWhatIf(start, made, [run.id], 'by the bench')
        ?.edits.map(({ list }) => list)
        .sort(),
    ).toEqual(['policy', 'runs'])
  })
  it('is refused where it can no longer be tried, and what cannot be judged is left to whoever applies it', () => {
    expect(keepWhatIf(start, nothing, [run.id], 'by the moon')).toBeNull()
    expect(keepWhatIf(start, nothing, ['r-99'], 'by the bench')).toBeNull()
    const made = saveRun(demo, start.place, {
      run: { ...run, to: { device: 'nobody', port: 'x' } },
      needs: [],
      had: [],
    })
    expect(keepWhatIf(start, made, [run.id], 'by the bench')).toBe(made)
  })
})
