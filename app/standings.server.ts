import { setTimeout as wait } from 'node:timers/promises'
import { type Standing, standingOf } from '../core/report/standing'
import { database } from '../server/database/connection'
import { log } from '../server/log'
import { currentCopy } from '../server/sites/copies'
import { openView } from './views.server'

type Stood = { identity: string; place: number; standing: Standing }
/** A site by what its row says of it. */
export type Place = { id: string; identity: string; place: number }

const stood = new Map<string, Stood>()
const underway = new Set<string>()

/** So long the list of sites waits for what is not worked out yet; it asks again for the rest. */
const PATIENCE_MS = 250

/** How each site stands; null for one that changed and is still being worked out, one after the other, so that nobody else waits. */
export async function standingsOf(sites: readonly Place[]): Promise<Record<string, Standing | null>> {
  const behind = sites.filter((site) => !current(site))
  if (behind.length > 0) await Promise.race([workOut(behind), wait(PATIENCE_MS, undefined, { ref: false })])
  return Object.fromEntries(sites.map((site) => [site.id, current(site)]))
}

function current({ id, identity, place }: Place): Standing | null {
  const known = stood.get(id)
  return known?.identity === identity && known.place >= place ? known.standing : null
}

async function workOut(sites: readonly Place[]): Promise<void> {
  for (const { id } of sites) {
    if (underway.has(id)) continue
    underway.add(id)
    try {
      const held = await currentCopy(database(), id)
      if (!held) continue
      const { identity, copy } = held
      const { assessed } = await openView(id, copy, identity)
      stood.set(id, { identity, place: copy.place, standing: standingOf(assessed) })
    } catch (error) {
      // the list says that it is not known yet, and asks again
      log.warn({ err: error }, 'a site could not be judged for the list of sites')
    } finally {
      underway.delete(id)
    }
  }
}
