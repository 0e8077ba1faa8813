import type { Entities, Entity, Fault, ListName } from '../plan/entity'
import type { Plan } from '../plan/plan'
import type { Instant } from '../vocabulary/fields'
import type { ChangeName } from './words'

/** The place of a change in its site's log, from 1 on. */
export type LogPosition = number

/**
 * One entity before and after. `base` is the place in the log of the copy it was made from (null: it is new), `value` what it becomes (null: it is
 * gone), `before` the entity of its list it is put in front of (null: at the end; left out: where it stands, or at the end where it is new).
 */
export type Edit<List extends ListName = ListName> = {
  list: List
  id: string
  base: LogPosition | null
  value: Entities[List] | null
  before?: string | null
}

/** What a change is called, and what it is about: tags and names, for the words of its line in the history. */
export type What = { name: ChangeName; about: readonly string[] }

/** A change of a site as one value: whoever holds the copy it was made from can apply it, now or later, once. */
export type Change = {
  /** Made by whoever makes the change: a change sent twice is one. */
  id: string
  at: Instant
  by: string
  what: What
  /** The change that this one takes back. */
  undoes?: string
  edits: readonly Edit[]
}

/**
 * A change before somebody puts a name and a time to it. What it is called may depend on what is left of it once it was merged with what others
 * changed: then it is asked of the plan it is applied to, and of the edits as they are applied.
 */
export type ChangeToMake = { what: What | ((plan: Plan, edits: readonly Edit[]) => What); edits: readonly Edit[] }

/** A plan at a place of its log. Entities that changed after the first place have a revision: the place at which they last did. */
export type Copy = {
  plan: Plan
  place: LogPosition
  revisions: ReadonlyMap<string, LogPosition>
  /** Bytes of the plan as a file, without the lists that only grow. */
  bytes: number
  /** Bytes of these: all that was seen. */
  grown: number
}

export const entityKey = (list: ListName, id: string): string => `${list}/${id}`

/** The place at which an entity last changed. */
export const revisionOf = ({ revisions }: Pick<Copy, 'revisions'>, list: ListName, id: string): LogPosition =>
  revisions.get(entityKey(list, id)) ?? 1

/** What a change touched; `moved` where its place in the list changed as well. */
export type Touched = { list: ListName; id: string; moved?: boolean }

export const touchedBy = (edits: readonly Edit[]): Touched[] =>
  edits.map(({ list, id, before }) => ({ list, id, ...(before === undefined ? {} : { moved: true }) }))

export type Applied = {
  outcome: 'applied'
  copy: Copy
  /** The edits as they were applied, each value as the reader reads it. */
  edits: readonly Edit[]
  /** What takes them back. */
  inverse: readonly Edit[]
  touched: readonly Touched[]
}

/** One entity that somebody else changed since: what each made of it. */
export type Clash = {
  list: ListName
  id: string
  /** The fields that both changed; empty where one of the two removed it, or made it. */
  fields: readonly string[]
  mine: Entity | null
  theirs: Entity | null
}
export type Conflict = { outcome: 'conflict'; clashes: readonly Clash[] }
export type Faults = { outcome: 'refused'; faults: readonly Fault[] }
