import type { Said } from '../core/faults/said'
import { type ImageUse, isPixels, type KeptImage } from '../core/files/file-types'
import type { FolderCable } from '../core/identity/class-folder'
import type { DeviceReading } from '../core/identity/reading-shape'
import type { Parsed } from '../core/quantity/parsed'
import type { GrowthAnswer } from '../core/variants/upgrades'
import type { Sheet } from '../core/vocabulary/sheet'
import type { Answer, Leaf, SinceAnswer } from '../server/handover/answers'
import { newPages } from '../server/handover/pages'
import type { JobHands } from '../server/jobs/jobs'
import { type Done, offThread } from '../server/off-thread/pool'
import { firstBytes, type Imported } from '../server/sites/import-told'
import type { TagRequest } from '../server/tags/tag-sheets'
import type { SentFile } from '../server/web/sent-form'
import type * as tasks from './off-thread-tasks'

/** The cables in a packed folder of a computer's type-C class. */
export const readFolderFile = (path: string): Promise<Done<Parsed<FolderCable[]>>> => offThread('readFolder', path)

/** Reads a table of cables. */
export const readTableFile = (
  request: tasks.TableRequest,
): Promise<Done<Awaited<ReturnType<typeof tasks.readTable>>>> => offThread('readTable', request)

/** Reads a catalogue. */
export const readKindsFile = (
  request: tasks.CatalogueRequest,
): Promise<Done<Awaited<ReturnType<typeof tasks.readCatalogue>>>> => offThread('readCatalogue', request)

/** Reads a supplier's price list. */
export const readPricesFile = (
  request: tasks.PricesRequest,
): Promise<Done<Awaited<ReturnType<typeof tasks.readPrices>>>> => offThread('readPrices', request)

/** A picture made harmless and no larger than it need be. */
const makeImage = (request: tasks.ImageRequest): Promise<Done<Parsed<KeptImage>>> =>
  offThread('readImageFile', request, isPixels(firstBytes(request.path)) ? {} : { seconds: LONGEST_LINES_SECONDS })

/** The picture that a form brought, or why there is none, in words for its page. */
export async function pictureOf(
  sent: SentFile | null,
  use: ImageUse,
): Promise<{ picture: KeptImage } | { problem: string; status: number }> {
  const refuse = (problem: string, status = 422) => ({ problem: `${problem} Nothing was saved.`, status })
  if (!sent) return refuse(`Choose a ${use} first.`)
  const work = await makeImage({ path: sent.path, use })
  if (!work.done) return refuse(work.problem, work.status)
  return work.value.ok ? { picture: work.value.value } : refuse(work.value.problem)
}

/** A drawing in lines of the largest size takes half a second; one that takes longer means harm. */
const LONGEST_LINES_SECONDS = 2

/** What a computer or a display says of itself, in a log of megabytes as well. */
export const readDeviceText = (told: tasks.Told): Promise<Done<Parsed<DeviceReading>>> => offThread('readDevice', told)

/** What a pasted log or listing says; megabytes of it keep nobody waiting. */
export const saidByText = (text: string): Promise<Done<Said>> => offThread('readPastedText', text)

/** Reads a table of a survey against the site. */
export const readSurveyFile = (
  request: tasks.SurveyRequest,
): Promise<Done<Awaited<ReturnType<typeof tasks.readSurveyFile>>>> => offThread('readSurveyFile', request)

/** Brings in a plan file or an archive of a site, from its first byte to its last row. */
export const importSite = (request: Parameters<typeof tasks.importSite>[0]): Promise<Done<Imported>> =>
  offThread('importSite', request, { seconds: LONGEST_IMPORT_SECONDS })

/** A site of the largest size takes a minute on a busy machine. */
const LONGEST_IMPORT_SECONDS = 120
/** Two hundred cables take some ten. */
const LONGEST_DRAWING_SECONDS = 60

/** All sheets of tags as one PDF, unless whoever asked leaves before they are drawn. */
export const makeTagPdf = (request: TagRequest, leaves: AbortSignal): Promise<Done<Uint8Array>> =>
  offThread('tagPdf', request, { leaves, seconds: LONGEST_DRAWING_SECONDS })

/** One sheet of tags as SVG; null where there is no such sheet. */
export const makeTagSheet = (request: TagRequest & { sheet: number }): Promise<Done<string | null>> =>
  offThread('tagSheet', request)

/** A sheet on paper. */
export const makeSheetPdf = (sheet: Sheet, leaves: AbortSignal): Promise<Done<Uint8Array>> =>
  offThread('drawSheet', sheet, { leaves, seconds: LONGEST_DRAWING_SECONDS })

/** A book of the largest site takes a minute on a busy machine. */
const LONGEST_PACK_SECONDS = 180
/** So often it is looked how many pages there are. */
const COUNT_EVERY_MS = 250

/** Makes all that is handed over, as a long job. Answers what is wrong, or null. */
export async function makeHandoverPack(
  request: { siteId: string; handover: string; address: string },
  { stopped, pages }: JobHands,
): Promise<string | null> {
  const counted = newPages()
  const look = setInterval(() => pages(Atomics.load(counted, 0)), COUNT_EVERY_MS)
  try {
    const bounds = { seconds: LONGEST_PACK_SECONDS, leaves: stopped, lane: 'long' } as const
    const work: Done<string | null> = await offThread('makeHandoverPack', { ...request, pages: counted }, bounds)
    pages(Atomics.load(counted, 0))
    return work.done ? work.value : work.problem
  } finally {
    clearInterval(look)
  }
}

/** What has changed since a handover. */
export const sinceHandover = (asked: Parameters<typeof tasks.handoverSince>[0]): Promise<Done<Answer<SinceAnswer>>> =>
  offThread('handoverSince', asked, { seconds: LONGEST_ANSWER_SECONDS })

/** A part of the book of a handover, for a screen. */
export const leafOfBook = (asked: Parameters<typeof tasks.handoverLeaf>[0]): Promise<Done<Answer<Leaf>>> =>
  offThread('handoverLeaf', asked, { seconds: LONGEST_ANSWER_SECONDS })

/** What a change would break of what was handed over. */
export const aheadOfHandover = (
  asked: Parameters<typeof tasks.handoverAhead>[0],
): Promise<Done<Answer<GrowthAnswer>>> => offThread('handoverAhead', asked, { seconds: LONGEST_ANSWER_SECONDS })

/** Two sites of the largest size, judged on a busy machine. */
const LONGEST_ANSWER_SECONDS = 60
