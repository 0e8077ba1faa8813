import type { Knex } from 'knex'
import sharp from 'sharp'
import { assessAnew } from '../../core/checks/assess'
import { FILE_TYPES } from '../../core/files/file-types'
import { blocksOf, bookOf, PAGE_MARGIN, paperSizes, titleOf } from '../../core/handover/book'
import { drawingSvg } from '../../core/handover/drawing'
import { floorDrawing } from '../../core/handover/floor-drawing'
import { packTables } from '../../core/handover/tables'
import type { Plan } from '../../core/plan/plan'
import { readPlanText } from '../../core/plan/read'
import { planText } from '../../core/plan/write'
import type { Handover } from '../../core/vocabulary/handover'
import { closeDatabase, database } from '../database/connection'
import { inTransaction } from '../database/transaction'
import { fileOf, type StoredFile } from '../files/files'
import { bookPdf } from '../paper/book-pdf'
import { seriesCsv } from '../series/series-csv'
import { currentCopy } from '../sites/copies'
import { planAt } from '../sites/plan-at'
import { BOOK, documentOf, documentsOf, KEPT_PLAN, keepDocuments, type NewDocument } from './documents'
import type { Pages } from './pages'

/** A pack that is to be made: of which handover, and the address that its codes open. `pages` is where it counts how far it is. */
export type PackRequest = { siteId: string; handover: string; address: string; pages: Pages }

/** Readings of instruments that a pack takes along at most, in bytes; those of more stay on the site. */
const MOST_READINGS_BYTES = 30_000_000

/** The plan that a handover stands for: as it was kept with it, or else from the log. Null where the log has been cut off before it. */
export async function planOf(knex: Knex, siteId: string, { id, log, place }: Handover): Promise<Plan | null> {
  const kept = await documentOf(knex, { siteId, handover: id }, KEPT_PLAN)
  if (!kept) return planAt(knex, siteId, log, place)
  const read = readPlanText(kept.bytes.toString('utf8'))
  return read.ok ? read.plan : null
}

export const CUT_OFF =
  'The plan of this handover was not kept, and the log of this site does not go back to it. Hand over anew.'

/**
 * Makes all that is handed over: the book, tables, drawings, the plan file and readings, and keeps it with the handover. On the thread that calls it, over a
 * connection of its own. Answers what is wrong, or null.
 */
export async function makePack(
  { siteId, handover: id, address, pages }: PackRequest,
  csv: (rows: readonly (readonly string[])[]) => string,
): Promise<string | null> {
  const knex = database()
  try {
    const held = await currentCopy(knex, siteId)
    const handover = held?.copy.plan.handovers.find((each) => each.id === id)
    if (!handover) return 'This handover is not there any more: it was undone. The history has it.'
    const there = new Set((await documentsOf(knex, { siteId, handover: id })).map(({ name }) => name))
    // what was made is kept as it was made
    if (there.has(BOOK)) return null
    const plan = await planOf(knex, siteId, handover)
    if (!plan) return CUT_OFF
    const of = bookOf(assessAnew(plan), handover)
    const images = await imagesOf(knex, siteId, plan)
    const book = await bookPdf({
      title: titleOf(of),
      blocks: blocksOf(of),
      size: paperSizes[handover.paper],
      margin: PAGE_MARGIN,
      address,
      imageOf: (file) => images.get(file)?.pixels ?? null,
      progress: (count) => Atomics.store(pages, 0, count),
    })
    const made: NewDocument[] = [
      { name: BOOK, type: 'application/pdf', bytes: book },
      ...(there.has(KEPT_PLAN)
        ? []
        : [{ name: KEPT_PLAN, type: 'application/json', bytes: Buffer.from(planText(plan)) }]),
      ...packTables.map(({ name, rows }) => ({
        name: `tables/${name}.csv`,
        type: 'text/csv; charset=utf-8',
        bytes: Buffer.from(csv(rows(of))),
      })),
      ...plan.floors.map((floor) => ({
        name: `drawings/${floor.id}.svg`,
        type: 'image/svg+xml',
        bytes: Buffer.from(
          drawingSvg(
            floorDrawing(of.site.index, floor, of.room),
            floor.name,
            (file) => images.get(file)?.address ?? null,
          ),
        ),
      })),
      ...(await readingsOf(knex, siteId, plan)),
    ]
    await inTransaction(knex, (trx) => keepDocuments(trx, { siteId, handover: id }, made, new Date().toISOString()))
    return null
  } finally {
    await closeDatabase()
  }
}

type Image = { pixels: Buffer; address: string }
/** Drawings on paper are no finer than this. */
const MOST_PIXELS = 2400

/** The drawings under the floors, as paper takes them and as a drawing in lines names them. What is gone is left out. */
async function imagesOf(knex: Knex, siteId: string, { floors }: Plan): Promise<ReadonlyMap<string, Image>> {
  const images = new Map<string, Image>()
  for (const { drawing } of floors) {
    if (!drawing || images.has(drawing.file)) continue
    const file = await fileOf(knex, siteId, drawing.file)
    const image = file && (await imageOf(file))
    if (image) images.set(drawing.file, image)
  }
  return images
}

async function imageOf({ type, bytes }: StoredFile): Promise<Image | null> {
  const size = { width: MOST_PIXELS, height: MOST_PIXELS, fit: 'inside', withoutEnlargement: true } as const
  const pixels = await sharp(bytes, { density: 150, limitInputPixels: 100_000_000 })
    .resize(size)
    .flatten({ background: '#fff' })
    .jpeg({ quality: 80 })
    .toBuffer()
    .catch(() => null)
  return pixels && type in FILE_TYPES ? { pixels, address: `data:${type};base64,${bytes.toString('base64')}` } : null
}

/** The readings that observations of the plan name, each as a table. */
async function readingsOf(knex: Knex, siteId: string, { observations }: Plan): Promise<NewDocument[]> {
  const named = new Set(observations.flatMap((seen) => ('series' in seen && seen.series ? [seen.series] : [])))
  const made: NewDocument[] = []
  let room = MOST_READINGS_BYTES
  for (const id of named) {
    const lines: string[] = []
    for await (const line of seriesCsv(knex, siteId, id)) {
      lines.push(line)
      room -= line.length
      if (room < 0) return made
    }
    if (lines.length > 1)
      made.push({ name: `readings/${id}.csv`, type: 'text/csv; charset=utf-8', bytes: Buffer.from(lines.join('')) })
  }
  return made
}
