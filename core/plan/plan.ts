import { z } from 'zod'
import { defaultPolicy, newPolicy, policySchema } from '../vocabulary/policy'
import { type Site, siteSchema } from '../vocabulary/site'
import { PLAN_LISTS, type PlanList, planLists } from './lists'

export { MOST_PHOTOS, type Place } from '../vocabulary/place'
export type { Site } from '../vocabulary/site'
export { PLAN_LISTS, type PlanList } from './lists'

export const PLAN_FORMAT = 'hallway-plan'
export const PLAN_VERSION = 5

type Lists = { [List in PlanList]: z.ZodDefault<z.ZodArray<(typeof planLists)[List]['schema']>> }

/** Entities of a list at most, those included that there is always room for. */
export const roomOf = (list: PlanList): number => planLists[list].most + (planLists[list].spare?.room ?? 0)

const lists = Object.fromEntries(
  PLAN_LISTS.map((list) => [
    list,
    z
      .array(planLists[list].schema as z.ZodType)
      .max(roomOf(list))
      .default([]),
  ]),
) as unknown as Lists

/** One site at its three addresses: the rows of the database, the plan file on disk, the value `assess` computes on. */
export const planSchema = z.strictObject({
  format: z.literal(PLAN_FORMAT),
  version: z.literal(PLAN_VERSION),
  site: siteSchema,
  policy: policySchema.default(defaultPolicy),
  ...lists,
})
export type Plan = z.output<typeof planSchema>

/** A site with nothing in it yet. */
export const emptyPlan = (site: { id: string; name: string } & Partial<Site>): Plan => ({
  format: PLAN_FORMAT,
  version: PLAN_VERSION,
  site: siteSchema.parse(site),
  policy: newPolicy,
  ...(Object.fromEntries(PLAN_LISTS.map((list) => [list, []])) as unknown as Pick<Plan, PlanList>),
})
