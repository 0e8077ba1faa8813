import type { Entity, ListName } from '../plan/entity'
import { type Clash, type Copy, type Edit, type LogPosition, revisionOf } from './change'
import { entityAt } from './copy'

/** Fields whose own fields are told apart as well; any other is changed as a whole. */
const COMPOUND: Partial<Record<ListName, readonly string[]>> = { runs: ['route'] }

type Fields = Record<string, unknown>

/** The merged entity, and the fields that both changed differently: in `value` they are theirs, in `mine` one's own. */
export type Merged = { value: Entity; mine: Entity; fields: string[] }

/**
 * Two versions of one entity that were made from the same third, merged field by field: what only one changed is as that one has it, what both
 * changed alike is so, and what both changed differently is a clash.
 */
export function mergeFields(list: ListName, was: Entity, mine: Entity, theirs: Entity): Merged {
  const fields: string[] = []
  const merge = (winner: 'mine' | 'theirs', clashes: string[]) =>
    merged(was as Fields, mine as Fields, theirs as Fields, COMPOUND[list] ?? [], '', clashes, winner) as Entity
  return { value: merge('theirs', fields), mine: merge('mine', []), fields }
}

function merged(
  was: Fields,
  mine: Fields,
  theirs: Fields,
  compound: readonly string[],
  prefix: string,
  clashes: string[],
  winner: 'mine' | 'theirs',
): Fields {
  const value: Fields = {}
  for (const name of new Set([...Object.keys(theirs), ...Object.keys(mine)])) {
    const [before, ours, others] = [was[name], mine[name], theirs[name]]
    let now: unknown
    if (same(ours, others) || same(ours, before)) now = others
    else if (same(others, before)) now = ours
    else if (areThings(before) && areThings(ours) && areThings(others)) {
      const lost: string[] = []
      now = mergedThings(before, ours, others, lost, winner)
      if (lost.length > 0) clashes.push(`${prefix}${name}`)
    } else if (compound.includes(name) && isFields(before) && isFields(ours) && isFields(others))
      now = merged(before, ours, others, [], `${name}.`, clashes, winner)
    else {
      clashes.push(`${prefix}${name}`)
      now = winner === 'mine' ? ours : others
    }
    if (now !== undefined) value[name] = now
  }
  return value
}

type Thing = Fields & { id: string }

/** A list of things with ids of their own: the ports of a device, the tests of a session. */
const areThings = (value: unknown): value is Thing[] =>
  Array.isArray(value) && value.every((each) => isFields(each) && typeof each.id === 'string')

/**
 * Two versions of such a list, thing by thing. What only one took away is gone, what only one put in is there, and of one that both kept the fields are
 * merged. They stand as the others have them, one's own new ones behind; but where only one's own order changed, in that.
 */
function mergedThings(
  was: readonly Thing[],
  mine: readonly Thing[],
  theirs: readonly Thing[],
  clashes: string[],
  winner: 'mine' | 'theirs',
): Thing[] {
  const [before, ours, others] = [was, mine, theirs].map((list) => new Map(list.map((thing) => [thing.id, thing])))
  const merge = (id: string): Thing | null => {
    const [old, own, other] = [before?.get(id), ours?.get(id), others?.get(id)]
    if (same(own, other) || same(own, old)) return other ?? null
    if (same(other, old)) return own ?? null
    if (old && own && other) return merged(old, own, other, [], '', clashes, winner) as Thing
    clashes.push(id)
    return (winner === 'mine' ? own : other) ?? null
  }
  const idsOf = (list: readonly Thing[]): string => list.map(({ id }) => id).join(' ')
  const [first, second] = idsOf(theirs) === idsOf(was) ? [mine, theirs] : [theirs, mine]
  const ids = new Set([...first, ...second].map(({ id }) => id))
  return [...ids].flatMap((id) => merge(id) ?? [])
}

const isFields = (value: unknown): value is Fields =>
  typeof value === 'object' && value !== null && !Array.isArray(value)

/** Equal as JSON, whatever the order of fields. */
export function same(one: unknown, other: unknown): boolean {
  if (Object.is(one, other)) return true
  if (Array.isArray(one) && Array.isArray(other))
    return one.length === other.length && one.every((each, at) => same(each, other[at]))
  if (!isFields(one) || !isFields(other)) return false
  const names = new Set([...Object.keys(one), ...Object.keys(other)])
  return [...names].every((name) => same(one[name], other[name]))
}

/**
 * Edits that were made from an older copy, brought up to this one: an entity that somebody else changed since is merged field by field. `wasAt` answers
 * the entity as it stood at a place; without it, or where both changed one field, there is a clash. `over` is a place whose state was seen and is to be
 * written over: up to there one's own version wins.
 */
export function rebase(
  copy: Copy,
  edits: readonly Edit[],
  wasAt: (edit: Edit) => Entity | null,
  over: LogPosition | null = null,
): { edits: Edit[]; clashes: Clash[] } {
  const clashes: Clash[] = []
  const current = edits.map((edit): Edit => {
    const { list, id, base, value } = edit
    const theirs = entityAt(copy.plan, list, id)
    if (theirs === null) return over !== null && base !== null ? { ...edit, base: null } : edit
    if (base === null || revisionOf(copy, list, id) <= base) return edit
    const seen = over !== null && revisionOf(copy, list, id) <= over
    const was = wasAt(edit)
    if (value !== null && was !== null) {
      const merge = mergeFields(list, was, value, theirs)
      if (merge.fields.length === 0 || seen)
        return { ...edit, base: copy.place, value: seen ? merge.mine : merge.value } as Edit
      clashes.push({ list, id, fields: merge.fields, mine: value, theirs })
    } else if (seen || (value === null && was !== null && same(was, theirs))) return { ...edit, base: copy.place }
    else clashes.push({ list, id, fields: [], mine: value, theirs })
    return edit
  })
  return { edits: current, clashes }
}

/** True where an edit would leave the entity as it stands: a form that nobody touched, something deleted that is gone. */
export const changesNothing = (copy: Copy, { list, id, value, before }: Edit): boolean =>
  before === undefined && same(entityAt(copy.plan, list, id), value)
