import { learnedAgain } from '../observe/learned'
import type { Observation } from '../observe/observation'
import type { Entity } from '../plan/entity'
import { byIdAgain, ownersAgain } from '../plan/lookup'
import type { Plan, PlanList } from '../plan/plan'
import { joinsAgain } from '../plan/site-index'

type Item = { id: string }

/** What became of one list of a plan: what there was before of the entities that changed, what there is now, and which are gone. */
export type ListChange = { list: PlanList; was: readonly Entity[]; now: readonly Entity[]; gone: readonly string[] }

/** What is kept of lists, each brought along to the next plan from what changed instead of being worked out anew. A new index is a line here. */
const indexes: readonly ((before: Plan, after: Plan, change: ListChange) => void)[] = [
  (before, after, { list, now, gone }) => byIdAgain(before[list], after[list], gone, now as readonly (Entity & Item)[]),
  (before, after, { list, was, now }) => ownersAgain(list, before, after, was, now),
  (before, after, { list }) => {
    if (list === 'runs') joinsAgain(before.runs, after.runs)
  },
  (before, after, { list, was, now }) => {
    if (list === 'observations')
      learnedAgain(before, after, { added: now as readonly Observation[], removed: was as readonly Observation[] })
  },
]

/** Brings every index of the lists that changed along to the plan after the change. */
export function bringAlong(before: Plan, after: Plan, changes: readonly ListChange[]): void {
  for (const change of changes) for (const index of indexes) index(before, after, change)
}
