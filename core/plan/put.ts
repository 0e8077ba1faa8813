import { madeFrom } from '../work/kept'
import { byId } from './lookup'
import type { Plan, PlanList } from './plan'

type Item = { id: string }

/** The plan with an entity put into a list: in place of the one of its id, or at the end where it is new. */
export function put<List extends PlanList>(plan: Plan, list: List, entity: Plan[List][number]): Plan {
  const items: readonly Item[] = plan[list]
  const was = byId(items).get(entity.id)
  const now = was ? items.map((item) => (item === was ? entity : item)) : [...items, entity]
  const change = { replaced: was ? [[was, entity] as const] : [], added: was ? [] : [entity], removed: [] }
  return { ...plan, [list]: madeFrom<Item, readonly Item[]>(items, now, { ...change, reordered: false }) }
}

/** The plan with one entity of a list changed; the plan as it is where there is no such entity. */
export function patch<List extends PlanList>(
  plan: Plan,
  list: List,
  id: string,
  change: (entity: Plan[List][number]) => Plan[List][number],
): Plan {
  const entity = byId<Item>(plan[list]).get(id)
  return entity ? put(plan, list, change(entity as Plan[List][number])) : plan
}
