import { entityLists, LIST_NAMES } from '../plan/entity'
import type { Plan } from '../plan/plan'
import { followedRoute } from '../route/follow'
import type { Run } from '../vocabulary/run'
import { replay } from './apply'
import type { Copy, Edit } from './change'
import { same } from './merge'

/** What may lead a run another way when it changes. */
const LEADS: ReadonlySet<string> = new Set(['floors', 'places', 'pathways', 'devices', 'runs'])

/**
 * The edits of a change with what follows from them: runs that take the shortest way over the pathways take the one there is then. Whoever makes a
 * change calls it, so that the length of such a run is always that of its way.
 */
export function followed(copy: Pick<Copy, 'plan' | 'place'>, edits: readonly Edit[]): readonly Edit[] {
  if (!edits.some(({ list }) => LEADS.has(list))) return edits
  const changed = new Map(edits.flatMap((edit) => (edit.list === 'runs' ? [[edit.id, edit] as const] : [])))
  if (!copy.plan.runs.some(follows) && ![...changed.values()].some(({ value }) => follows(value as Run | null)))
    return edits
  // what cannot be read leads nowhere: whoever applies the change says what is wrong with it
  if (!edits.every(isReadable)) return edits
  const after = replay({ ...copy, revisions: new Map(), bytes: 0, grown: 0 }, edits).copy.plan
  const more = new Map<string, Edit>()
  for (const run of after.runs) {
    if (!follows(run) || !ways(copy.plan, after, changed, run)) continue
    const route = followedRoute(after, run)
    if (same(route, run.route)) continue
    const edit = changed.get(run.id) ?? { list: 'runs', id: run.id, base: copy.place, value: run }
    more.set(run.id, { ...edit, value: { ...run, route } } as Edit)
  }
  if (more.size === 0) return edits
  return [
    ...edits.map((edit) => (edit.list === 'runs' ? (more.get(edit.id) ?? edit) : edit)),
    ...[...more.values()].filter(({ id }) => !changed.has(id)),
  ]
}

const isReadable = ({ list, value }: Edit): boolean =>
  value === null || (LIST_NAMES.includes(list) && entityLists[list].schema.safeParse(value).success)

/** Of a value that somebody sent, too. */
const follows = (run: Partial<Run> | null): boolean => run?.route?.follows === true

/** Whether the way of a run may be another than before: the net changed, or one of its ends. */
const ways = (before: Plan, after: Plan, changed: ReadonlyMap<string, Edit>, run: Run): boolean =>
  before.floors !== after.floors ||
  before.pathways !== after.pathways ||
  before.places !== after.places ||
  before.devices !== after.devices ||
  changed.has(run.id)
