import type { Readable } from 'node:stream'
import { buffer } from 'node:stream/consumers'
import type { Knex } from 'knex'
import { fromBufferPromise } from 'yauzl'
import { ZipFile } from 'yazl'
import { FILE_TYPES, type KeptImage } from '../../core/files/file-types'
import type { Plan } from '../../core/plan/plan'
import { LARGEST_PLAN_BYTES } from '../../core/plan/read'
import { planText } from '../../core/plan/write'
import { type Parsed, parsed, unreadable } from '../../core/quantity/parsed'
import { fileId, fileOf, filesNamed } from './files'
import { isKept } from './image'

/** The plan file within an archive. */
const PLAN_NAME = 'plan.json'

/** A site as an archive (ZIP): its plan file, and the files that it names beside it. */
export async function siteArchive(knex: Knex, siteId: string, plan: Plan): Promise<Readable> {
  const zip = new ZipFile()
  zip.addBuffer(Buffer.from(planText(plan)), PLAN_NAME)
  for (const id of filesNamed(plan)) {
    const file = await fileOf(knex, siteId, id)
    // pictures are packed as they are
    if (file) zip.addBuffer(file.bytes, `files/${id}.${FILE_TYPES[file.type]}`, { compress: false })
  }
  zip.end()
  return zip.outputStream as Readable
}

export type OpenedArchive = { plan: string; files: KeptImage[]; leftOut: number }

const LARGEST_FILE = 16_000_000
const MOST_FILES = 5000
/** An archive at its largest: a plan, and what a site keeps. */
export const LARGEST_SITE_ARCHIVE_BYTES = 220_000_000

export const isArchive = (bytes: Uint8Array): boolean => bytes[0] === 0x50 && bytes[1] === 0x4b

/** The plan and the files of an archive. A file that Hallway would not have kept so, or whose name is not what it holds, is left out and counted. */
export async function openArchive(bytes: Uint8Array): Promise<Parsed<OpenedArchive>> {
  const files: KeptImage[] = []
  let plan: string | null = null
  let leftOut = 0
  let count = 0
  try {
    const zip = await fromBufferPromise(Buffer.from(bytes), { lazyEntries: true })
    for await (const entry of zip.eachEntry()) {
      count += 1
      if (count > MOST_FILES) return unreadable(`The archive holds more than ${MOST_FILES} files.`)
      const { fileName, uncompressedSize } = entry
      if (fileName === PLAN_NAME && uncompressedSize <= LARGEST_PLAN_BYTES)
        plan = (await buffer(await zip.openReadStreamPromise(entry))).toString('utf8')
      else if (/^files\/[0-9a-f]{64}\.(webp|svg)$/.test(fileName) && uncompressedSize <= LARGEST_FILE) {
        const held = new Uint8Array(await buffer(await zip.openReadStreamPromise(entry)))
        const kept = fileName.includes(fileId(held)) ? await isKept(held) : null
        if (kept) files.push(kept)
        else leftOut += 1
      } else if (!fileName.endsWith('/')) leftOut += 1
    }
  } catch {
    return unreadable(
      'The archive could not be read to its end: it is damaged, or made by a program that packs otherwise.',
    )
  }
  return plan === null ? unreadable(`There is no ${PLAN_NAME} in this archive.`) : parsed({ plan, files, leftOut })
}
