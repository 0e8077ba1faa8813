import { buffer } from 'node:stream/consumers'
import { type Entry, openPromise } from 'yauzl'
import { type KeptImage, PLAN_NAME } from '../../core/files/file-types'
import { LARGEST_FILE_BYTES } from '../../core/plan/read'
import { type Parsed, parsed, unreadable } from '../../core/quantity/parsed'
import type { BroughtDocument } from '../handover/brought'
import { DOCUMENT_NAME, documentFrom, LARGEST_DOCUMENT_BYTES } from '../handover/brought'
import { readSeriesFile, type SeriesFile } from '../series/series-file'
import { fileId } from './files'
import { isKept, LARGEST_KEPT_BYTES } from './image'

/** An archive of a site that is open: the text of its plan, and its files one by one. */
export type OpenArchive = {
  plan: string
  /** Those that Hallway would have kept so, read as they are asked for. Whatever else is in the archive is left out. */
  files(): AsyncIterable<KeptImage>
  /** The readings of its instruments, likewise. */
  series(): AsyncIterable<SeriesFile>
  /** What was made for its handovers, likewise. */
  documents(): AsyncIterable<BroughtDocument>
  /** How many were left out, once the files were read. */
  leftOut(): number
  close(): void
}

const MOST_FILES = 5000
const SERIES_NAME = /^series\/[a-z0-9][a-z0-9._-]{0,63}\.jsonl$/i
/** As many samples as a site may keep, at their longest. */
const LARGEST_SERIES_BYTES = 1_000_000_000
const notRead = 'The archive could not be read to its end: it is damaged, or made by a program that packs otherwise.'

/** Opens an archive of a site. Only its plan is read at once, so that an archive of any size takes little room. */
export async function openArchive(path: string): Promise<Parsed<OpenArchive>> {
  const pictures: Entry[] = []
  const readings: Entry[] = []
  const documents: Entry[] = []
  let plan: string | null = null
  let others = 0
  let count = 0
  const zip = await openPromise(path, { lazyEntries: true, autoClose: false }).catch(() => null)
  if (!zip) return unreadable(notRead)
  const refuse = (problem: string) => {
    zip.close()
    return unreadable(problem)
  }
  try {
    for await (const entry of zip.eachEntry()) {
      count += 1
      if (count > MOST_FILES) return refuse(`The archive holds more than ${MOST_FILES} files.`)
      const { fileName, uncompressedSize } = entry
      if (fileName === PLAN_NAME && uncompressedSize <= LARGEST_FILE_BYTES)
        plan = (await buffer(await zip.openReadStreamPromise(entry))).toString('utf8')
      else if (/^files\/[0-9a-f]{64}\.(webp|svg)$/.test(fileName) && uncompressedSize <= LARGEST_KEPT_BYTES)
        pictures.push(entry)
      else if (SERIES_NAME.test(fileName) && uncompressedSize <= LARGEST_SERIES_BYTES) readings.push(entry)
      else if (DOCUMENT_NAME.test(fileName) && uncompressedSize <= LARGEST_DOCUMENT_BYTES) documents.push(entry)
      else if (!fileName.endsWith('/')) others += 1
    }
  } catch {
    return refuse(notRead)
  }
  if (plan === null) return refuse(`There is no ${PLAN_NAME} in this archive.`)
  let unlike = 0
  let unlikeSeries = 0
  return parsed({
    plan,
    async *files() {
      unlike = 0
      for (const entry of pictures) {
        // a picture that is damaged is left out like one that somebody else made
        const held = await zip
          .openReadStreamPromise(entry)
          .then(buffer)
          .catch(() => null)
        const kept = held && entry.fileName.includes(fileId(held)) ? await isKept(held) : null
        if (kept) yield kept
        else unlike += 1
      }
    },
    async *series() {
      unlikeSeries = 0
      for (const entry of readings) {
        const read = await readSeriesFile(() => zip.openReadStreamPromise(entry)).catch(() => null)
        if (read && entry.fileName === `series/${read.head.id}.jsonl`) yield read
        else unlikeSeries += 1
      }
    },
    async *documents() {
      for (const entry of documents) {
        const bytes = await zip
          .openReadStreamPromise(entry)
          .then(buffer)
          .catch(() => null)
        const document = bytes && documentFrom(entry.fileName, bytes)
        if (document) yield document
      }
    },
    leftOut: () => others + unlike + unlikeSeries,
    close: () => zip.close(),
  })
}
