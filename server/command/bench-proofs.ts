import { applyChange } from '../../core/change/apply'
import type { Edit } from '../../core/change/change'
import { acceptRun } from '../../core/change/changes/prove'
import { copyOf } from '../../core/change/copy'
import { type Assessed, assessAnew } from '../../core/checks/assess'
import { reassess } from '../../core/checks/reassess'
import type { Plan } from '../../core/plan/plan'
import { proofsOf, runsToProve } from '../../core/prove/proof'
import { takenAt } from '../../core/prove/rests'
import { runTests } from '../../core/prove/run-tests'
import { benchSite } from './bench-site'
import { median, timed } from './timing'

/** Milliseconds: every proof of a site worked out, and the same once more after one thing changed. */
export type ProofsCost = {
  runs: number
  anew: number
  afterOne: number
  /** What waits for somebody, after one change. */
  waiting: number
  /** How many times quicker than all anew. */
  gain: number
}

const RUNS = 2000

/** A site where every run was accepted with what it rests on, and then one lead, device or need is changed at a time. */
export function benchProofs(): ProofsCost {
  const plan = allAccepted(benchSite(RUNS, 2000))
  let site: Assessed = assessAnew(plan)
  let copy = copyOf(plan)
  const anew = timed(() => void proofsOf(site))
  const [after, waiting]: [number[], number[]] = [[], []]
  for (let at = 0; at < 30; at += 1) {
    const applied = applyChange(copy, { edits: [editOf(copy.plan, at, copy.place)] })
    if (applied.outcome !== 'applied') throw new Error(JSON.stringify(applied))
    copy = applied.copy
    site = reassess(site, copy.plan)
    after.push(timed(() => void proofsOf(site)))
    waiting.push(timed(() => void runsToProve(site)))
  }
  const afterOne = median(after)
  return { runs: RUNS, anew, afterOne, waiting: median(waiting), gain: anew / afterOne }
}

function editOf({ cables, devices, needs }: Plan, at: number, base: number): Edit {
  const [cable, device, need] = [cables[at], devices[at], needs[at]]
  if (!cable || !device || !need) throw new Error('the site is large enough')
  const edits: Edit[] = [
    { list: 'cables', id: cable.id, base, value: { ...cable, length: 0.1 + at / 100 } },
    { list: 'devices', id: device.id, base, value: { ...device, note: `seen ${at}` } },
    { list: 'needs', id: need.id, base, value: { ...need, note: `asked ${at}` } },
  ]
  return edits[at % edits.length] as Edit
}

function allAccepted(plan: Plan): Plan {
  const { index, walks } = assessAnew(plan)
  let number = 0
  const newId = (): string => {
    number += 1
    return `ok-${number}`
  }
  const edits = plan.runs.flatMap((run) => {
    const crossings = walks.crossings.get(run.id) ?? []
    const waived = runTests(index, run, crossings).map(({ key }) => key)
    const said = { less: 'for the bench', waived, conditions: null, ...takenAt(index, run, crossings) }
    return acceptRun(run, said, { at: '2026-11-01T10:00:00.000Z', by: undefined, newId }).edits
  })
  return { ...plan, observations: edits.map(({ value }) => value as Plan['observations'][number]) }
}
