import { createHash } from 'node:crypto'
import type { Knex } from 'knex'
import type { LogPosition } from '../../core/change/change'
import { UNDO_CHANGES, UNDO_DAYS } from '../../core/change/undo-ends'
import { type FileType, type KeptImage, MOST_FILE_BYTES } from '../../core/files/file-types'
import type { Plan } from '../../core/plan/plan'
import { columnTime } from '../sites/entity-rows'

/** A site as its files follow it: its floors, its places, and what was handed over. */
type Naming = Pick<Plan, 'floors' | 'places' | 'handovers'>

export type StoredFile = { id: string; type: FileType; bytes: Buffer }

/** The name of a file: what it holds, as SHA-256. */
export const fileId = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex')

export const FILES_FULL = `the files of this site fill the ${MOST_FILE_BYTES / 1e6} MB that it may keep`

/** Keeps files with a site, in the transaction of the change that names them. What is kept already is kept once. False, and nothing is kept, where they are too much. */
export async function keepFiles(trx: Knex, siteId: string, files: readonly KeptImage[]): Promise<boolean> {
  const byId = new Map(files.map((file) => [fileId(file.bytes), file]))
  const known: { id: string }[] = await trx('files')
    .where({ site_id: siteId })
    .whereIn('id', [...byId.keys()])
    .select('id')
  for (const { id } of known) byId.delete(id)
  const more = [...byId.values()].reduce((sum, { bytes }) => sum + bytes.length, 0)
  if (more > 0 && (await filesSize(trx, siteId)) + more > MOST_FILE_BYTES) return false
  for (const [id, { type, bytes }] of byId)
    await trx('files').insert({ site_id: siteId, id, type, size: bytes.length, bytes: Buffer.from(bytes) })
  return true
}

/** Marks the files that a change leaves unnamed, and takes the mark off those that it names again. */
export async function followNames(
  trx: Knex,
  siteId: string,
  { before, after }: { before: Naming; after: Naming },
  change: { place: LogPosition; at: string },
): Promise<void> {
  if (before.floors === after.floors && before.places === after.places && before.handovers === after.handovers) return
  const [were, are] = [filesNamed(before), filesNamed(after)]
  const mark = async (ids: string[], dropped: { dropped_place: LogPosition | null; dropped_at: string | null }) => {
    if (ids.length > 0) await trx('files').where({ site_id: siteId }).whereIn('id', ids).update(dropped)
  }
  await mark(
    [...were].filter((id) => !are.has(id)),
    { dropped_place: change.place, dropped_at: columnTime(change.at) },
  )
  await mark(
    [...are].filter((id) => !were.has(id)),
    { dropped_place: null, dropped_at: null },
  )
}

/** An undo that is just being made may name a file that is just being let go. */
const SPARE_CHANGES = 20
const SPARE_DAYS = 1
const DAY_MS = 24 * 3600 * 1000

/** Lets go of the files that nothing names and no undo can bring back; answers how many. */
export const sweepFiles = (knex: Knex, now = new Date()): Promise<number> =>
  knex('files')
    .join('sites', 'sites.id', 'files.site_id')
    .whereNotNull('files.dropped_place')
    .where((past) =>
      past
        .whereRaw('sites.place - files.dropped_place >= ?', [UNDO_CHANGES + SPARE_CHANGES])
        .orWhere(
          'files.dropped_at',
          '<',
          columnTime(new Date(now.getTime() - (UNDO_DAYS + SPARE_DAYS) * DAY_MS).toISOString()),
        ),
    )
    .select('files.site_id', 'files.id')
    .then(async (past: { site_id: string; id: string }[]) => {
      for (const { site_id, id } of past)
        await knex('files').where({ site_id, id }).whereNotNull('dropped_place').delete()
      return past.length
    })

/** How much the files of a site come to, in bytes. */
export async function filesSize(knex: Knex, siteId: string): Promise<number> {
  const [sum] = await knex('files').where({ site_id: siteId }).sum({ all: 'size' })
  return Number(sum?.all ?? 0)
}

export const fileOf = async (knex: Knex, siteId: string, id: string): Promise<StoredFile | null> =>
  (await knex('files').where({ site_id: siteId, id }).first('id', 'type', 'bytes')) ?? null

/** The files that a plan names: drawings under its floors, photos of its places, and both as they were handed over. */
export const filesNamed = ({ floors, places, handovers }: Naming): ReadonlySet<string> =>
  new Set([
    ...floors.flatMap(({ drawing }) => drawing?.file ?? []),
    ...places.flatMap(({ photos = [] }) => photos.map(({ file }) => file)),
    ...handovers.flatMap(({ pins }) => pins),
  ])
