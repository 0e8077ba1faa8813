import { createHash } from 'node:crypto'
import type { Knex } from 'knex'
import { type FileType, type KeptImage, MOST_FILE_BYTES } from '../../core/files/file-types'
import type { Plan } from '../../core/plan/plan'

export type StoredFile = { id: string; type: FileType; bytes: Buffer }

/** The name of a file: what it holds, as SHA-256. */
export const fileId = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex')

/**
 * Keeps a file with a site and answers its name; null where the site keeps as much as it may. What is kept already is kept once. A file stays as long as
 * its site, since an undo may ask for it again.
 */
export async function keepFile(knex: Knex, siteId: string, { type, bytes }: KeptImage): Promise<string | null> {
  const id = fileId(bytes)
  const known = await knex('files').where({ site_id: siteId, id }).first('id')
  if (known) return id
  const [sum] = await knex('files').where({ site_id: siteId }).sum({ all: 'size' })
  if (Number(sum?.all ?? 0) + bytes.length > MOST_FILE_BYTES) return null
  await knex('files')
    .insert({ site_id: siteId, id, type, size: bytes.length, bytes: Buffer.from(bytes) })
    .onConflict(['site_id', 'id'])
    .ignore()
  return id
}

export const fileOf = async (knex: Knex, siteId: string, id: string): Promise<StoredFile | null> =>
  (await knex('files').where({ site_id: siteId, id }).first('id', 'type', 'bytes')) ?? null

/** The files that a plan names: drawings under its floors, photos of its places. */
export const filesNamed = ({ floors, places }: Plan): ReadonlySet<string> =>
  new Set([
    ...floors.flatMap(({ drawing }) => drawing?.file ?? []),
    ...places.flatMap(({ photos = [] }) => photos.map(({ file }) => file)),
  ])
