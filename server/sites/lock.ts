import type { Knex } from 'knex'
import { readPlanWithin, type StoredPlan } from './plan-rows'

/** What keeps a change from being saved: the site is gone, or the change does not fit it. Nothing was written. */
export type Refusal = { outcome: 'no-site' } | { outcome: 'refused'; faults: { path: string; reason: string }[] }

export const refused = (path: string, reason: string): Refusal => ({ outcome: 'refused', faults: [{ path, reason }] })

/** Holds the site's row until the transaction ends, so that two saves come one after the other; answers its revision. */
export async function holdSite(trx: Knex.Transaction, siteId: string): Promise<number | null> {
  const held = await trx('sites').where({ id: siteId }).forUpdate().first('revision')
  return held?.revision ?? null
}

/** Holds the site and reads all of it. */
export async function lockSite(trx: Knex.Transaction, siteId: string): Promise<StoredPlan | null> {
  return (await holdSite(trx, siteId)) === null ? null : readPlanWithin(trx, siteId)
}

export async function setRevision(trx: Knex.Transaction, siteId: string, revision: number): Promise<void> {
  await trx('sites').where({ id: siteId }).update({ revision })
}

/** Where each item of a list stands; the next free place for one that is new. */
export async function placesIn(trx: Knex.Transaction, table: string, site_id: string): Promise<(id: string) => number> {
  const rows: { id: string; position: number }[] = await trx(table).where({ site_id }).select('id', 'position')
  const places = new Map(rows.map((row) => [row.id, row.position]))
  let next = rows.reduce((highest, { position }) => Math.max(highest, position), -1) + 1
  return (id) => places.get(id) ?? next++
}
