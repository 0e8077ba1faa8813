import type { z } from 'zod'
import type { PortAddress } from './run'

/** Something an entity names that must be there. */
export type Reference = { path: string } & (
  | {
      to:
        | 'floors'
        | 'places'
        | 'pathways'
        | 'devices'
        | 'kinds'
        | 'cables'
        | 'runs'
        | 'sessions'
        | 'suppliers'
        | 'orders'
        | 'orderLines'
        | 'observations'
      id: string
    }
  | { to: 'port'; address: PortAddress }
  | { to: 'test'; session: string; id: string }
)

/** What no two entities of a list may share, in the folded form in which two are one. */
export type Key = { path: string; key: string; taken(by: string): string }

export type Fault = { path: string; reason: string }

/** What has to be judged again when something changed: whoever judges tells how. Each takes what was there before the change and after it. */
export type Bearing = {
  /** A run, and those that share ports, supplies and sections with it; `moved` where its place in the list changed. */
  run(id: string, moved: boolean): void
  /** A run alone. */
  onlyRun(id: string): void
  need(id: string): void
  /** A device: all runs at it, the needs it is an end of, and the ways of all others. */
  device(id: string): void
  /** The devices that stand at a place, with their runs. */
  place(id: string): void
  pathway(id: string): void
  kind(id: string): void
  /** A cable: its run, and as part of its kind's record the runs of its kind. */
  cable(id: string): void
}

/** What the reader, the changes, the database and the assessment ask of a list of entities. A new list is a file like those beside this one, and a line in `lists.ts`. */
export type ListDefinition<T> = {
  /** What one of them is called. */
  noun: string
  /** Entities of the list at most. */
  most: number
  /** So many more of those that `isSpare` tells: there is always room to take something back. */
  spare?: { room: number; isSpare(entity: T): boolean }
  /** It is only added to: nothing of it is edited, and nothing taken away but with what it is about. */
  grows?: (entity: T) => { list: string; id: string }
  /** It is never edited: another follows it. Only undo takes away what it made. */
  frozen?: true
  /** Its tag, where it has one: the database keeps the folded form unique as well. */
  tag?(entity: T): string
  keys?(entity: T): Iterable<Key>
  references?(entity: T): Iterable<Reference>
  /** What is wrong with the entity by itself and no schema can say. */
  faults?(entity: T): Iterable<Fault>
  /** What a change of the entity bears on; left out: no verdict depends on it. */
  bears?(on: Bearing, entity: T, moved: boolean): void
}

/** A list of the plan, with the type of its entities told by their schema. */
export const listOf = <Schema extends z.ZodType>(
  schema: Schema,
  definition: ListDefinition<z.output<Schema>>,
): ListDefinition<z.output<Schema>> & { schema: Schema } => ({ schema, ...definition })

export function* portReferences(ends: { from: PortAddress; to: PortAddress }, path = ''): Iterable<Reference> {
  yield { path: `${path}from`, to: 'port', address: ends.from }
  yield { path: `${path}to`, to: 'port', address: ends.to }
}

export function* repeatedIds(path: string, items: readonly { id: string }[]): Iterable<Fault> {
  const seen = new Set<string>()
  for (const [at, { id }] of items.entries()) {
    const folded = id.toLowerCase()
    if (seen.has(folded)) yield { path: `${path}[${at}].id`, reason: `"${id}" is used twice` }
    seen.add(folded)
  }
}
