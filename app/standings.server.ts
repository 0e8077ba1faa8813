import { setTimeout as wait } from 'node:timers/promises'
import { type Standing, standingOf } from '../core/report/standing'
import { database } from '../server/database/connection'
import { shelfFor } from '../server/kept'
import { log } from '../server/log'
import { currentCopy } from '../server/sites/copies'
import { openView } from './views.server'

type Stood = { identity: string; place: number; standing: Standing }
/** A site by what its row says of it. */
export type Place = { id: string; identity: string; place: number }

const stood = shelfFor<Stood>('how sites stand', {
  bytes: 4_000_000,
  most: 4000,
  sizeOf: (each) => JSON.stringify(each).length,
})
/** Those to be worked out, the first asked for first; one at a time, so that nobody else waits for it. */
let queue: readonly Place[] = []
let working: Promise<void> | null = null

/** So long the list of sites waits for what is not worked out yet; it asks again for the rest. */
const PATIENCE_MS = 250

/** So many sites are worked out for a list; the rest say how they stand once they are opened. */
const MOST_WORKED_OUT = 30

/** How each site stands, null where that is not known; and whether it is being worked out. Those given first are worked out first. */
export async function standingsOf(
  sites: readonly Place[],
): Promise<{ standings: Record<string, Standing | null>; working: boolean }> {
  queue = sites.slice(0, MOST_WORKED_OUT).filter((site) => !current(site))
  if (queue.length > 0) {
    working ??= workOut().finally(() => {
      working = null
    })
    await Promise.race([working, wait(PATIENCE_MS, undefined, { ref: false })])
  }
  return { standings: Object.fromEntries(sites.map((site) => [site.id, current(site)])), working: working !== null }
}

function current({ id, identity, place }: Place): Standing | null {
  const known = stood.get(id)
  return known?.identity === identity && known.place >= place ? known.standing : null
}

async function workOut(): Promise<void> {
  for (let next = queue[0]; next; next = queue[0]) {
    queue = queue.slice(1)
    try {
      const held = await currentCopy(database(), next.id)
      if (!held) continue
      const { identity, copy } = held
      const { assessed } = await openView(next.id, copy, identity)
      stood.set(next.id, { identity, place: copy.place, standing: standingOf(assessed) })
    } catch (error) {
      // the list says that it is not known
      log.warn({ err: error }, 'a site could not be judged for the list of sites')
    }
  }
}
