import { type Store, storeOf } from '../core/order/store'
import type { Plan } from '../core/plan/plan'
import { currentCopy } from '../server/sites/copies'
import { listSites } from '../server/sites/sites'
import { load } from './stored.server'

/** So many stores are looked through for a site. */
const MOST_STORES = 5

/** The stores that a site may take leads from: sites without runs that are not put away. What was read of simulated instruments counts in both or in neither. */
export const storesFor = ({ site }: Pick<Plan, 'site'>): Promise<Store[]> =>
  load(async (knex) => {
    const stores: Store[] = []
    for (const each of await listSites(knex)) {
      if (stores.length === MOST_STORES) break
      if (each.id === site.id || each.putAway || each.runs > 0 || each.cables === 0) continue
      const held = await currentCopy(knex, each.id)
      if (held && held.copy.plan.site.practice === site.practice) stores.push(storeOf(held.copy))
    }
    return stores
  })
