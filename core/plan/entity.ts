import type { z } from 'zod'
import type { ListDefinition } from '../vocabulary/list'
import { type Policy, policySchema } from '../vocabulary/policy'
import { type Site, siteSchema } from '../vocabulary/site'
import { PLAN_LISTS, type PlanList, planLists } from './lists'

export type { Fault, Key, Reference } from '../vocabulary/list'

/** Everything of a plan that has an id of its own and changes by itself; the site and its policy are lists of one. */
export type Entities = { site: Site; policy: Policy } & {
  [List in PlanList]: z.output<(typeof planLists)[List]['schema']>
}
export type ListName = keyof Entities
export type Entity = Entities[ListName]
export const LIST_NAMES = ['site', 'policy', ...PLAN_LISTS] as const satisfies readonly ListName[]
export const isPlanList = (list: ListName): list is PlanList => list !== 'site' && list !== 'policy'

/** The form in which two ids of a list are one: people say most of them, and nobody says that of an observation. */
export const foldId = (list: PlanList, id: string): string => (planLists[list].grows ? id : id.toLowerCase())

export type EntityList<T> = ListDefinition<T> & { schema: z.ZodType<T> }

export const entityLists = {
  site: { schema: siteSchema, noun: 'site', most: 1 },
  policy: { schema: policySchema, noun: 'rules', most: 1 },
  ...planLists,
} as unknown as { readonly [List in ListName]: EntityList<Entities[List]> }
