import type { Edit } from '../change/change'
import type { Entity } from '../plan/entity'

/** Lists in which `by` is no person: a leg of a run goes along something. */
const NO_PEOPLE: ReadonlySet<Edit['list']> = new Set(['runs'])

/**
 * An edit whose every new `by` is the name of who makes it, whatever was sent. What stood there before keeps its name: so a colleague's observation is not
 * taken over by correcting it.
 */
export function signed(edit: Edit, was: Entity | null, name: string): Edit {
  if (edit.value === null || NO_PEOPLE.has(edit.list)) return edit
  const known = new Map<string, string>()
  walk(was, (item) => known.set(withoutName(item), String(item.by)))
  const value = structuredClone(edit.value)
  const own = (was as { by?: unknown } | null)?.by
  walk(value, (item) => {
    const before = item === value ? own : known.get(withoutName(item))
    item.by = typeof before === 'string' ? before : name
  })
  return { ...edit, value }
}

type Named = { by?: unknown }

/** Everything within a value that says who it is of. */
function walk(value: unknown, tell: (item: Named) => void): void {
  if (typeof value !== 'object' || value === null) return
  if (typeof (value as Named).by === 'string') tell(value as Named)
  for (const each of Object.values(value)) walk(each, tell)
}

const withoutName = (item: Named): string => JSON.stringify({ ...item, by: null })
