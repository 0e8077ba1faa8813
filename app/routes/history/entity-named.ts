import type { ListName } from '../../../core/plan/entity'
import type { Plan } from '../../../core/plan/plan'
import { foldTag } from '../../../core/vocabulary/fields'

type Named = { id: string; tag?: string; name?: string | undefined }
/** What people ask the history of, those with tags first. */
const ASKED = [
  'runs',
  'cables',
  'devices',
  'needs',
  'kinds',
  'sessions',
  'places',
  'pathways',
  'floors',
] as const satisfies readonly ListName[]

/** What goes by a tag or a name on a site, however it is written; null where nothing does. */
export function entityNamed(plan: Plan, text: string): { list: ListName; id: string } | null {
  const asked = foldTag(text.trim())
  for (const list of ASKED) {
    const items: readonly Named[] = plan[list]
    const found = items.find(({ id, tag, name }) => foldTag(tag ?? name ?? id) === asked)
    if (found) return { list, id: found.id }
  }
  return null
}
