import { entityLists } from '../plan/entity'
import type { Plan } from '../plan/plan'
import type { Edit } from './change'
import { entityAt } from './copy'
import { calledIn, differences, isTold } from './differences'

/** What one edit would do: what it is about, and what becomes of it. */
export type PreviewLine = { key: string; noun: string; name: string; what: string }

/** What edits would do, a line each, before anybody does it; what was seen goes along with what it is about, unsaid. */
export function previewOf(plan: Plan, edits: readonly Edit[]): PreviewLine[] {
  return edits.flatMap(({ list, id, value }): PreviewLine | [] => {
    if (!isTold(list)) return []
    const before = entityAt(plan, list, id)
    const line = {
      key: `${list}/${id}`,
      noun: entityLists[list].noun,
      name: calledIn(plan, list, (before ?? value) as never) ?? id,
    }
    if (value === null) return { ...line, what: 'deleted' }
    if (before === null) return { ...line, what: 'new' }
    return { ...line, what: differences(plan, list, before as never, value as never).join(', ') }
  })
}
