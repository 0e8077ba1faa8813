import { observationsOf } from '../observe/learned'
import type { Observation } from '../observe/observation'
import type { Plan } from '../plan/plan'
import type { Search } from '../vocabulary/search'
import type { Seen } from './search'

/** What was observed of a run and still counts, oldest first. */
export function countingOf(plan: Plan, run: string): readonly Observation[] {
  const all = observationsOf(plan, { run })
  const gone = new Set(all.flatMap((each) => (each.kind === 'retraction' ? [each.retracts] : [])))
  return all.filter(({ id, kind }) => kind !== 'retraction' && !gone.has(id))
}

/** What was seen and tried in a search. */
export function seenIn(plan: Plan, search: Search): Seen {
  const counting = countingOf(plan, search.run)
  return {
    symptoms: counting.flatMap((each) => (each.kind === 'symptom' && each.search === search.id ? [each] : [])),
    tries: counting.flatMap((each) => (each.kind === 'try' && each.search === search.id ? [each] : [])),
  }
}
