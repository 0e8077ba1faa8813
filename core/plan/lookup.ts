import type { PortAddress } from '../vocabulary/run'
import { manyBy, oneBy } from '../work/index-by'
import { type Entity, type EntityList, entityLists } from './entity'
import { PLAN_LISTS, type Plan, type PlanList } from './plan'

/** What is asked of a plan to tell whether what an entity names is there, and whether what it claims is free. */
export type PlanLookup = {
  has(list: PlanList, id: string): boolean
  hasPort(address: PortAddress): boolean
  hasTest(session: string, test: string): boolean
  /** Another entity of the list that has the same key. */
  rival(list: PlanList, key: string, own: string): string | undefined
}

type Item = { id: string }

const ids = oneBy(({ id }: Item) => [id])

/** The entities of a list by their ids. */
export const byId = <T extends Item>(list: readonly T[]): ReadonlyMap<string, T> => ids(list) as ReadonlyMap<string, T>

/** The entities of each list that have a key. */
const ownersOf = Object.fromEntries(
  PLAN_LISTS.flatMap((list) => {
    const { keys } = entityLists[list] as EntityList<Entity>
    return keys ? [[list, manyBy((item: Item) => Array.from(keys(item as Entity & Item), ({ key }) => key))]] : []
  }),
) as Partial<Record<PlanList, (items: readonly Item[]) => ReadonlyMap<string, readonly Item[]>>>

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
    const owners = ownersOf[list]?.(plan[list]).get(key) ?? []
    return blame === 'either' || owners[0]?.id !== own ? owners.find(({ id }) => id !== own)?.id : undefined
  },
})
