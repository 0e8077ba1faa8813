import type { Knex } from 'knex'
import type { LogPosition } from '../../core/change/change'
import { log } from '../log'

type Listener = (place: LogPosition) => void

/** Who wants to hear of which site. Pages are open in browsers; other processes change sites too, so the database is asked as well. */
const listeners = new Map<string, Set<Listener>>()
const ASK_EVERY_MS = 400

let asking: ReturnType<typeof setInterval> | undefined
const heard = new Map<string, LogPosition>()

/** Tells those who listen that a site has come to a place in its log. */
export function announce(siteId: string, place: LogPosition): void {
  const known = heard.get(siteId) ?? 0
  if (place <= known) return
  if (listeners.has(siteId)) heard.set(siteId, place)
  for (const listener of listeners.get(siteId) ?? []) listener(place)
}

/** Hears of every place a site comes to, whichever process brought it there, until the answer is called. */
export function listen(knex: Knex, siteId: string, listener: Listener): () => void {
  const own = listeners.get(siteId) ?? new Set()
  own.add(listener)
  listeners.set(siteId, own)
  asking ??= setInterval(() => void ask(knex), ASK_EVERY_MS)
  return () => {
    own.delete(listener)
    if (own.size === 0) {
      listeners.delete(siteId)
      heard.delete(siteId)
    }
    if (listeners.size === 0) {
      clearInterval(asking)
      asking = undefined
    }
  }
}

/** One question for all sites that somebody listens to. */
async function ask(knex: Knex): Promise<void> {
  try {
    const rows: { id: string; place: LogPosition }[] = await knex('sites')
      .whereIn('id', [...listeners.keys()])
      .select('id', 'place')
    for (const { id, place } of rows) announce(id, place)
  } catch {
    // pages that could not be told hear of it with the next question
    log.debug('the database does not say what changed')
  }
}
