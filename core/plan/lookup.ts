import type { PortAddress } from '../vocabulary/run'
import { keptWith } from '../work/kept'
import { AppendedIndex } from './appended-index'
import { type Entities, type Entity, type EntityList, entityLists, type Key } from './entity'
import type { Plan, PlanList } from './plan'

/** What is asked of a plan to tell whether what an entity names is there, and whether what it claims is free. */
export type PlanLookup = {
  has(list: PlanList, id: string): boolean
  hasPort(address: PortAddress): boolean
  hasTest(session: string, test: string): boolean
  /** Another entity of the list that has the same key. */
  rival(list: PlanList, key: string, own: string): string | undefined
}

type Item = { id: string }

const indexed = keptWith(
  (list: readonly Item[]): ReadonlyMap<string, Item> => new Map(list.map((item) => [item.id, item])),
)

/** The entities of a list by their ids. */
export const byId = <T extends Item>(list: readonly T[]): ReadonlyMap<string, T> =>
  indexed(list) as ReadonlyMap<string, T>

/** Tells the ids of a list that was made from an indexed one: what went, and what came or is another value. */
export function byIdAgain(
  before: readonly Item[],
  after: readonly Item[],
  gone: readonly string[],
  now: readonly Item[],
): void {
  const known = indexed.known(before)
  if (!known || before === after) return
  if (gone.length === 0 && isAppended(before, after, now)) {
    const index = known instanceof AppendedIndex ? known : AppendedIndex.of(before)
    indexed.keep(after, index.appended(after))
    return
  }
  const ids = new Map(known)
  for (const id of gone) ids.delete(id)
  for (const item of now) ids.set(item.id, item)
  indexed.keep(after, ids)
}

/** Fewer than this are indexed anew as quickly. */
const WORTH_SHARING = 1000

/** A long list of which another was made by adding at its end alone. */
const isAppended = (before: readonly Item[], after: readonly Item[], now: readonly Item[]): boolean =>
  before.length >= WORTH_SHARING &&
  after.length === before.length + now.length &&
  after[before.length - 1] === before.at(-1) &&
  now.every((item, at) => after[before.length + at] === item)

const ownersOf = {
  cables: keptWith((items: Plan['cables']) => owners('cables', items)),
  runs: keptWith((items: Plan['runs']) => owners('runs', items)),
  soaks: keptWith((items: Plan['soaks']) => owners('soaks', items)),
}
const hasKeys = (list: PlanList): list is keyof typeof ownersOf => list in ownersOf
const keysOf = (list: PlanList, plan: Plan): ReadonlyMap<string, readonly string[]> | undefined =>
  hasKeys(list) ? ownersOf[list](plan[list] as never) : undefined

function owners<List extends PlanList>(list: List, items: Plan[List]): ReadonlyMap<string, readonly string[]> {
  const { keys } = entityLists[list] as EntityList<Entities[List]>
  const found = new Map<string, string[]>()
  for (const item of items as unknown as readonly (Entities[List] & Item)[]) {
    for (const { key } of keys?.(item) ?? []) {
      const known = found.get(key)
      if (known) known.push(item.id)
      else found.set(key, [item.id])
    }
  }
  return found
}

/** Tells the keys of a list that was made from another by taking some entities away and putting others in. */
export function ownersAgain(
  list: PlanList,
  before: Plan,
  after: Plan,
  gone: readonly Entity[],
  fresh: readonly Entity[],
): void {
  const known = keysOf(list, before)
  if (!known || before[list] === after[list] || !hasKeys(list)) return
  const keys = entityLists[list].keys as (item: Entity) => Iterable<Key>
  const found = new Map(known)
  for (const item of gone as readonly (Entity & Item)[])
    for (const { key } of keys(item))
      found.set(
        key,
        (found.get(key) ?? []).filter((id) => id !== item.id),
      )
  for (const item of fresh as readonly (Entity & Item)[])
    for (const { key } of keys(item)) found.set(key, [...(found.get(key) ?? []), item.id])
  ownersOf[list].keep(after[list] as never, found)
}

/** `blame` tells which of two that share a key is at fault: in a file that is read the later one, in a plan that is changed either. */
export const planLookup = (plan: Plan, blame: 'the later' | 'either'): PlanLookup => ({
  has: (list, id) => byId<Item>(plan[list]).has(id),
  hasPort: ({ device, port }) =>
    byId(plan.devices)
      .get(device)
      ?.ports.some(({ id }) => id === port) ?? false,
  hasTest: (session, test) =>
    byId(plan.sessions)
      .get(session)
      ?.tests.some(({ id }) => id === test) ?? false,
  rival(list, key, own) {
    const owners = keysOf(list, plan)?.get(key) ?? []
    return blame === 'either' || owners[0] !== own ? owners.find((id) => id !== own) : undefined
  },
})
