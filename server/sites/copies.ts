import type { Knex } from 'knex'
import type { LRUCache } from 'lru-cache'
import { replay } from '../../core/change/apply'
import type { Copy, Edit, LogPosition } from '../../core/change/change'
import { shelfFor } from '../kept'
import { editsSince, readCopy, type SiteRow, siteRow } from './entity-rows'

/** A site as this process holds it: a copy at a place in its log, of a site that is the same as long as its identity is. */
export type Held = { identity: string; copy: Copy }

const heldBy = new WeakMap<Knex, LRUCache<string, Held>>()
const MOST_HELD = 8
/** As the plans are written; in memory they are some times as large. */
const MOST_HELD_BYTES = 80_000_000
/** Further behind than this, reading the site anew is less work than catching up. */
const MOST_CAUGHT_UP = 2000

function shelf(knex: Knex): LRUCache<string, Held> {
  const known = heldBy.get(knex)
  if (known) return known
  const made = shelfFor<Held>('copies', { bytes: MOST_HELD_BYTES, most: MOST_HELD, sizeOf: ({ copy }) => copy.bytes })
  heldBy.set(knex, made)
  return made
}

/** The copy that a process may start from, as it holds it; null where it holds none of this very site. */
function heldFor(knex: Knex, { id, identity }: SiteRow): Copy | null {
  const held = shelf(knex).get(id)
  return held?.identity === identity ? held.copy : null
}

/** Keeps a copy that is known to be committed, unless a later one is held. */
export function keep(knex: Knex, siteId: string, held: Held): void {
  const kept = shelf(knex)
  const known = kept.get(siteId)
  const later = known?.identity === held.identity && known.copy.place > held.copy.place
  if (!later) kept.set(siteId, held)
}

/**
 * The site as it stands in the database. A process that holds a copy asks for the changes since its place instead of reading everything again; whoever
 * asks at the same time shares the answer. Null where there is no such site. Where its row was just read it is not read again.
 */
export async function currentCopy(knex: Knex, siteId: string, known?: SiteRow | null): Promise<Held | null> {
  const row = known ?? (await siteRow(knex, siteId))
  if (!row) return null
  const held = heldFor(knex, row)
  if (held && held.place >= row.place) return { identity: row.identity, copy: held }
  return knex
    .transaction((trx) => copyWithin(knex, trx, siteId), { isolationLevel: 'repeatable read' })
    .then((found) => {
      if (found) keep(knex, siteId, found)
      return found
    })
}

/** The copy of a site at the moment a transaction sees. */
export async function copyWithin(knex: Knex, trx: Knex, siteId: string): Promise<Held | null> {
  const row = await siteRow(trx, siteId)
  if (!row) return null
  const held = heldFor(knex, row)
  const behind = held === null ? Number.POSITIVE_INFINITY : row.place - held.place
  if (held === null || behind < 0 || behind > MOST_CAUGHT_UP)
    return { identity: row.identity, copy: await readCopy(trx, row) }
  if (behind === 0) return { identity: row.identity, copy: held }
  const edits = await editsSince(trx, siteId, held.place)
  return { identity: row.identity, copy: caughtUp(held, row.place, edits) }
}

/** A copy brought to a later place by the edits of each change in between. */
export function caughtUp(from: Copy, to: LogPosition, edits: ReadonlyMap<LogPosition, readonly Edit[]>): Copy {
  let copy = from
  for (let place = from.place + 1; place <= to; place += 1) copy = replay(copy, edits.get(place) ?? []).copy
  return copy
}
