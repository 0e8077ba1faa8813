import type { Entity } from '../plan/entity'
import type { Plan } from '../plan/plan'
import { type Edit, entityKey, type Place } from './change'
import { entityAt } from './copy'
import { same } from './merge'
import { touchedBetween } from './touched'

/** The edits that make one plan of another it was made from, which stands at place `base` of its log. What only stands elsewhere in its list is left where it stood. */
export function editsBetween(before: Plan, after: Plan, base: Place): Edit[] {
  const edits = new Map<string, Edit>()
  for (const { list, id } of touchedBetween(before, after)) {
    const was = entityAt(before, list, id)
    const value: Entity | null = entityAt(after, list, id)
    if (was !== null && value !== null && same(was, value)) continue
    edits.set(entityKey(list, id), { list, id, base: was === null ? null : base, value })
  }
  return [...edits.values()]
}
