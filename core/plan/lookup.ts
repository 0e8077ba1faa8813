import { type Entities, type EntityList, entityLists } from './entity'
import type { Plan, PlanList } from './plan'
import type { PortAddress } from './run'

/** What is asked of a plan to tell whether what an entity names is there, and whether what it claims is free. */
export type PlanLookup = {
  has(list: PlanList, id: string): boolean
  hasPort(address: PortAddress): boolean
  hasTest(session: string, test: string): boolean
  /** Another entity of the list that has the same key. */
  rival(list: PlanList, key: string, own: string): string | undefined
}

type Item = { id: string }

/** What follows from a list alone is kept with the very list: what a change has not touched is not worked out again. */
export function keptWith<List extends object, Answer>(work: (list: List) => Answer): (list: List) => Answer {
  const answers = new WeakMap<List, Answer>()
  return (list) => {
    const found = answers.get(list)
    if (found !== undefined) return found
    const answer = work(list)
    answers.set(list, answer)
    return answer
  }
}

const indexed = keptWith(
  (list: readonly Item[]): ReadonlyMap<string, Item> => new Map(list.map((item) => [item.id, item])),
)

/** The entities of a list by their ids. */
export const byId = <T extends Item>(list: readonly T[]): ReadonlyMap<string, T> =>
  indexed(list) as ReadonlyMap<string, T>

const ownersOf = {
  cables: keptWith((items: Plan['cables']) => owners('cables', items)),
  runs: keptWith((items: Plan['runs']) => owners('runs', items)),
  soaks: keptWith((items: Plan['soaks']) => owners('soaks', items)),
}
const keysOf = (list: PlanList, plan: Plan): ReadonlyMap<string, readonly string[]> | undefined =>
  list === 'cables' || list === 'runs' || list === 'soaks' ? ownersOf[list](plan[list] as never) : undefined

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
