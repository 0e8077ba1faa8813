import { learnInSlices } from '../core/observe/learned'
import { type DoneElsewhere, type KindDone, kindsDone, together } from '../core/order/kind-record'
import { type Store, storeOf } from '../core/order/store'
import type { Plan } from '../core/plan/plan'
import { indexPlan } from '../core/plan/site-index'
import { type RecordCell, recordOf } from '../core/prove/record'
import { currentCopy } from '../server/sites/copies'
import { listSites, type SiteListing } from '../server/sites/sites'
import { inSlices } from './in-slices'
import { load } from './stored.server'

/** What the other sites of this Hallway can give to one that orders: leads of its stores, and what kinds did there. */
export type Elsewhere = { stores: Store[]; kinds: Record<string, DoneElsewhere>; record: readonly RecordCell[] }

/** So many stores are looked through for a site. */
const MOST_STORES = 5
/** So many other sites tell what kinds did there. */
const MOST_SITES = 20

/** What each site tells of its kinds, as long as it stands where it stood. */
const told = new Map<
  string,
  {
    identity: string
    place: number
    practice: boolean
    done: ReadonlyMap<string, KindDone>
    record: readonly RecordCell[]
  }
>()

/**
 * Stores are sites without runs. What was read of simulated instruments counts in both sites or in neither, and sites that are put away tell nothing.
 */
export const elsewhere = ({ site }: Pick<Plan, 'site'>): Promise<Elsewhere> =>
  load(async (knex) => {
    const stores: Store[] = []
    const done: ReadonlyMap<string, KindDone>[] = []
    const record: RecordCell[] = []
    for (const each of await listSites(knex)) {
      if (each.id === site.id || each.putAway || each.cables === 0) continue
      const isStore = each.runs === 0 && stores.length < MOST_STORES
      const kept = keptOf(each)
      if (kept && !isStore) {
        if (kept.practice === site.practice) {
          done.push(kept.done)
          record.push(...kept.record)
        }
        continue
      }
      if (!isStore && done.length >= MOST_SITES) continue
      const held = await currentCopy(knex, each.id)
      if (!held) continue
      const { plan, place } = held.copy
      await inSlices(learnInSlices(plan))
      const index = indexPlan(plan)
      const own = kept?.done ?? kindsDone(index)
      const cells = kept?.record ?? recordOf(index)
      told.set(each.id, {
        identity: held.identity,
        place,
        practice: plan.site.practice,
        done: own,
        record: cells,
      })
      if (plan.site.practice !== site.practice) continue
      if (isStore) stores.push(storeOf(held.copy))
      if (done.length < MOST_SITES) {
        done.push(own)
        record.push(...cells)
      }
    }
    return { stores, kinds: together(done), record }
  })

function keptOf({ id, identity, place }: SiteListing) {
  const kept = told.get(id)
  return kept?.identity === identity && kept.place === place ? kept : null
}
