import { byId, byIdAgain } from './lookup'
import type { Plan, PlanList } from './plan'
import { joinsAgain } from './site-index'

/** The plan with an entity put into a list: in place of the one of its id, or at the end where it is new. */
export function put<List extends PlanList>(plan: Plan, list: List, entity: Plan[List][number]): Plan {
  const items = plan[list] as readonly { id: string }[]
  const now = byId(items).has(entity.id)
    ? items.map((item) => (item.id === entity.id ? entity : item))
    : [...items, entity]
  byIdAgain(items, now, [], [entity])
  if (list === 'runs') joinsAgain(plan.runs, now as Plan['runs'])
  return { ...plan, [list]: now }
}

/** The plan with one entity of a list changed; the plan as it is where there is no such entity. */
export function patch<List extends PlanList>(
  plan: Plan,
  list: List,
  id: string,
  change: (entity: Plan[List][number]) => Plan[List][number],
): Plan {
  const entity = byId<{ id: string }>(plan[list]).get(id)
  return entity ? put(plan, list, change(entity as Plan[List][number])) : plan
}
