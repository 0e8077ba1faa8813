import type { Entity } from '../plan/entity'
import type { Plan } from '../plan/plan'
import { type Edit, entityKey, type LogPosition, type Touched } from './change'
import { entityAt, POLICY_ID, SITE_ID } from './copy'
import { same } from './merge'
import { touchedBetween } from './touched'

/** The edits that make one plan of another it was made from, which stands at place `base` of its log. What only stands elsewhere in its list is left where it stood. */
export function editsBetween(before: Plan, after: Plan, base: LogPosition): Edit[] {
  const edits = new Map<string, Edit>()
  const touched: Touched[] = touchedBetween(before, after)
  if (before.policy !== after.policy) touched.push({ list: 'policy', id: POLICY_ID })
  if (before.site !== after.site) touched.push({ list: 'site', id: SITE_ID })
  for (const { list, id } of touched) {
    const was = entityAt(before, list, id)
    const value: Entity | null = entityAt(after, list, id)
    if (was !== null && value !== null && same(was, value)) continue
    edits.set(entityKey(list, id), { list, id, base: was === null ? null : base, value })
  }
  return [...edits.values()]
}
