import { learnInSlices } from '../core/observe/learned'
import { type DoneElsewhere, type KindDone, kindsDone, together } from '../core/order/kind-record'
import { type Store, storeOf } from '../core/order/store'
import type { Plan } from '../core/plan/plan'
import { indexPlan, type SiteIndex } from '../core/plan/site-index'
import { type Advice, adviceOf } from '../core/prove/advice'
import { type Recipe, recipesOf } from '../core/prove/recipes'
import { type RecordCell, recordOf } from '../core/prove/record'
import { type SocketCell, socketRecordOf } from '../core/prove/socket-record'
import { offTheClock } from '../server/database/deadline'
import { shelfFor } from '../server/kept'
import { sitesFor } from '../server/people/asker'
import { type Access, ALL } from '../server/people/site-rights'
import { currentCopy } from '../server/sites/copies'
import { listSites, type SiteListing } from '../server/sites/sites'
import { asker } from './asker.server'
import { inSlices } from './in-slices'
import { identityWithout, shownTo } from './shown-copy.server'
import { load } from './stored.server'

/** What a site advises. */
export type SiteAdvice = Advice & { id: string; site: string; currency: string }

/** What sites tell the others of what was tried there. */
type Tried = {
  record: readonly RecordCell[]
  sockets: readonly SocketCell[]
  recipes: readonly Recipe[]
  advice: readonly SiteAdvice[]
}

/** What the other sites of this Hallway can give: leads of their stores, what kinds did there, what was tried and is advised. */
export type Elsewhere = { stores: Store[]; kinds: Record<string, DoneElsewhere> } & Tried

/** So many stores are looked through for a site. */
const MOST_STORES = 5
/** So many other sites tell what kinds did there. */
const MOST_SITES = 20

/** What one site tells. */
type Told = { done: ReadonlyMap<string, KindDone>; tried: Tried }

/** What each site tells of its kinds, as long as it stands where it stood. */
const told = shelfFor<Told & { identity: string; place: number; practice: boolean }>('what sites tell', {
  bytes: 32_000_000,
  most: 400,
  sizeOf: ({ done, tried }) => JSON.stringify([[...done], tried]).length,
})

/**
 * Stores are sites without runs. What was read of simulated instruments counts in both sites or in neither, and sites that are put away tell nothing.
 */
export const elsewhere = ({ site }: Pick<Plan, 'site'>): Promise<Elsewhere> =>
  load(async (knex) => {
    const stores: Store[] = []
    const tellers: Told[] = []
    const shown = await sitesFor(knex, asker())
    for (const each of await listSites(knex)) {
      if (each.id === site.id || each.putAway || each.cables === 0) continue
      // what was tried at sites that somebody may not see tells of them
      const may = shown ? shown.get(each.id) : ALL
      if (!may) continue
      const isStore = each.runs === 0 && stores.length < MOST_STORES
      const kept = keptOf(each, may)
      if (kept && !isStore) {
        if (kept.practice === site.practice) tellers.push(kept)
        continue
      }
      if (!isStore && tellers.length >= MOST_SITES) continue
      const found = await currentCopy(knex, each.id)
      if (!found) continue
      const held = shownTo(found, may.hides)
      const { plan, place } = held.copy
      await offTheClock(() => inSlices(learnInSlices(plan)))
      const own = kept ?? { ...toldBy(indexPlan(plan)), identity: held.identity, place, practice: plan.site.practice }
      told.set(toldKey(each, may), own)
      if (own.practice !== site.practice) continue
      if (isStore) stores.push(storeOf(held.copy))
      if (tellers.length < MOST_SITES) tellers.push(own)
    }
    return {
      stores,
      kinds: together(tellers.map(({ done }) => done)),
      record: tellers.flatMap(({ tried }) => tried.record),
      sockets: tellers.flatMap(({ tried }) => tried.sockets),
      recipes: tellers.flatMap(({ tried }) => tried.recipes),
      advice: tellers.flatMap(({ tried }) => tried.advice),
    }
  })

function toldBy(index: SiteIndex): Told {
  const advice = adviceOf(index)
  const { site, policy } = index.plan
  return {
    done: kindsDone(index),
    tried: {
      record: recordOf(index),
      sockets: socketRecordOf(index),
      recipes: recipesOf(index),
      advice:
        advice.devices.length + advice.avoid.length > 0
          ? [{ ...advice, id: site.id, site: site.name, currency: policy.currency }]
          : [],
    },
  }
}

const toldKey = ({ id }: SiteListing, { hides }: Access): string => `${id} ${hides.join(' ')}`

function keptOf(site: SiteListing, may: Access) {
  const kept = told.get(toldKey(site, may))
  return kept?.identity === identityWithout(site.identity, may.hides) && kept.place === site.place ? kept : null
}
