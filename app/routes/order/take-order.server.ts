import { z } from 'zod'
import type { Edit } from '../../../core/change/change'
import { type DecidedOrder, takeOrder } from '../../../core/change/changes/orders'
import { type Given, sendCables, takeWithStores } from '../../../core/change/changes/store'
import { deviceElsewhere, storedAt, storedId } from '../../../core/order/store'
import { byId } from '../../../core/plan/lookup'
import { changeSites, type Outcome, type Part, refused } from '../../../server/sites/change-site'
import { sentEditSchema } from '../../sent-edit.server'
import { baseOf, saveOutcome } from '../../stored.server'
import { handOf } from '../../who.server'

/** The longest decision: a lead and a line for each run of a large site. */
export const LONGEST_DECISION = 4_000_000

/** The id of a cable, here or in a store; whether it is there is for whoever takes it. */
const leadSchema = z.union([
  z.object({ cable: z.string().max(140), reversed: z.boolean() }),
  z.object({ kind: z.string().max(64), length: z.number(), reversed: z.boolean() }),
])
const decidedSchema = z.object({
  runs: z.array(z.object({ run: z.string().max(64), leads: z.array(leadSchema).max(8) })).max(12_000),
  alters: z.array(sentEditSchema).max(2000),
  lines: z
    .array(
      z.object({
        supplier: z.string().max(64).nullable(),
        kind: z.string().max(64),
        length: z.number(),
        count: z.number().int(),
        price: z.number(),
        part: z.enum(['try', 'after']).optional(),
        decide: z.string().max(10).optional(),
      }),
    )
    .max(5000),
})

/** A decision as its page sends it; null where it is none. */
export function readDecided(form: FormData): DecidedOrder | null {
  try {
    const { runs, lines, alters } = decidedSchema.parse(JSON.parse(String(form.get('decided'))))
    return { runs, lines: lines as DecidedOrder['lines'], alters: alters as Edit[] }
  } catch {
    return null
  }
}

/** Takes a decision. Leads of stores come over as one change of these sites and this one, which is undone only in all of them. */
export function takeDecided(
  request: Request,
  form: FormData,
  site: string,
  decided: DecidedOrder,
): Promise<Outcome | null> {
  const wanted = new Map<string, string[]>()
  for (const { leads } of decided.runs)
    for (const lead of leads) {
      const at = 'cable' in lead ? storedAt(lead.cable) : null
      if (at) wanted.set(at.site, [...(wanted.get(at.site) ?? []), at.cable])
    }
  // kept by store, as what is tried again is made again
  const given = new Map<string, Given>()
  const stores = [...wanted].map(
    ([store, ids]): Part => ({
      siteId: store,
      make: ({ plan, place }) => {
        const cables = ids.flatMap((id) => byId(plan.cables).get(id) ?? [])
        // a lead goes only where it lies free in a store, and a store is another site
        const isStore = store !== site && plan.runs.length === 0
        if (!isStore || cables.length < ids.length || cables.some(({ standing }) => standing !== 'drawer'))
          return refused('cable', `somebody took a lead out of ${plan.site.name} meanwhile`)
        given.set(store, { site: store, plan, cables })
        return sendCables(plan, place, cables)
      },
    }),
  )
  const here: Part = {
    siteId: site,
    make: ({ plan }) =>
      given.size === 0
        ? takeOrder(plan, baseOf(form), decided)
        : takeWithStores(plan, baseOf(form), decided, [...given.values()], {
            called: storedId,
            elsewhere: deviceElsewhere,
          }),
  }
  return saveOutcome(async (knex) => changeSites(knex, await handOf(request, form), [...stores, here]))
}
