import { learnedOf } from '../../core/observe/learned'
import type { Plan } from '../../core/plan/plan'

/** What a site has learnt as plain maps, which are equal whatever they were made from. */
export function learnedMaps(plan: Plan): Map<string, unknown>[] {
  const { bySubject, runs, copied } = learnedOf(plan)
  return [bySubject, runs, copied].map((map: ReadonlyMap<string, unknown>) => new Map(map))
}
