import { type Entities, isPlanList, type ListName } from '../plan/entity'
import { byId } from '../plan/lookup'
import type { Plan } from '../plan/plan'
import { bytesGrown, bytesOfPlan } from '../plan/write'
import type { Copy } from './change'

/** A plan as the copy of a site that has seen no change since its first. */
export const copyOf = (plan: Plan): Copy => ({
  plan,
  place: 1,
  revisions: new Map(),
  bytes: bytesOfPlan(plan),
  grown: bytesGrown(plan),
})

/** Lists of one are addressed by their own name. */
export const SITE_ID = 'site'
export const POLICY_ID = 'policy'

/** The entity at an address of a plan; null where there is none. */
export function entityAt<List extends ListName>(plan: Plan, list: List, id: string): Entities[List] | null {
  if (list === 'site') return (id === SITE_ID ? plan.site : null) as Entities[List] | null
  if (list === 'policy') return (id === POLICY_ID ? plan.policy : null) as Entities[List] | null
  if (!isPlanList(list)) return null
  return (byId<{ id: string }>(plan[list]).get(id) ?? null) as Entities[List] | null
}
