import { createHash } from 'node:crypto'
import type { Knex } from 'knex'
import { UNDO_DAYS } from '../../core/change/undo-ends'
import { columnTime } from '../sites/entity-rows'

/** What was made for a handover: a file of its pack. `/` in its name says in which folder of the archive it lies. */
export type Document = { name: string; type: string; size: number; made: string }
export type NewDocument = { name: string; type: string; bytes: Uint8Array }
type Of = { siteId: string; handover: string }

/** So much of a document is a row: far below what the database takes at once. */
const PART_BYTES = 1_000_000

/** The plan that a handover stands for, as a file of its pack. */
export const KEPT_PLAN = 'plan.json'
export const BOOK = 'book.pdf'

/** Keeps what was made for a handover, in place of what was made of the same name before. */
export async function keepDocuments(
  trx: Knex,
  { siteId, handover }: Of,
  made: readonly NewDocument[],
  at: string,
): Promise<void> {
  for (const { name, type, bytes } of made) {
    const key = { site_id: siteId, handover, name }
    await trx('documents').where(key).delete()
    await trx('documents').insert({ ...key, type, size: bytes.length, made: columnTime(at) })
    for (let number = 0; number * PART_BYTES < bytes.length; number += 1) {
      const part = Buffer.from(bytes.subarray(number * PART_BYTES, (number + 1) * PART_BYTES))
      await trx('document_parts').insert({ ...key, number, bytes: part })
    }
  }
}

/** What there is of a handover, by name. */
export async function documentsOf(knex: Knex, { siteId, handover }: Of): Promise<Document[]> {
  const rows = await knex('documents')
    .where({ site_id: siteId, handover })
    .orderBy('name')
    .select('name', 'type', 'size', 'made')
  return rows.map((row) => ({ ...row, made: new Date(row.made).toISOString() }))
}

/** One document with its bytes; null where it was not made. */
export async function documentOf(
  knex: Knex,
  { siteId, handover }: Of,
  name: string,
): Promise<(Document & { bytes: Buffer }) | null> {
  const key = { site_id: siteId, handover, name }
  const row = await knex('documents').where(key).first('name', 'type', 'size', 'made')
  if (!row) return null
  const parts: { bytes: Buffer }[] = await knex('document_parts').where(key).orderBy('number').select('bytes')
  return { ...row, made: new Date(row.made).toISOString(), bytes: Buffer.concat(parts.map(({ bytes }) => bytes)) }
}

/** How a document is named to whoever keeps it for later: it changes with what it holds. */
export const documentTag = (bytes: Uint8Array): string =>
  `"${createHash('sha256').update(bytes).digest('hex').slice(0, 32)}"`

/** Lets go of what was made for handovers that were undone and that no undo can bring back; answers how many documents. */
export const sweepDocuments = (knex: Knex, now = new Date()): Promise<number> =>
  knex('documents')
    .where('made', '<', columnTime(new Date(now.getTime() - (UNDO_DAYS + 1) * 86_400_000).toISOString()))
    .whereNotExists(
      knex('entities')
        .whereRaw('entities.site_id = documents.site_id')
        .whereRaw('entities.id = documents.handover')
        .where('entities.list', 'handovers'),
    )
    .delete()
