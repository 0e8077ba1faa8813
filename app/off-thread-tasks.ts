import { readFileSync } from 'node:fs'
import { readSaid, type Said } from '../core/faults/said'
import type { ImageUse, KeptImage } from '../core/files/file-types'
import { type FolderCable, readClassFolder } from '../core/identity/class-folder'
import { readFromDevice } from '../core/identity/device-reading'
import type { DeviceReading } from '../core/identity/reading-shape'
import { type PriceList, readPriceList } from '../core/order/price-list'
import type { Plan } from '../core/plan/plan'
import type { LengthUnit } from '../core/quantity/length'
import { type Parsed, parsed } from '../core/quantity/parsed'
import { readSurveyTable, type SurveyRead, type SurveyTable } from '../core/survey/tables'
import type { Sheet } from '../core/vocabulary/sheet'
import { readImage } from '../server/files/image'
import { ahead, leafOf, sinceThen } from '../server/handover/answers'
import { makePack, type PackRequest } from '../server/handover/make-pack'
import { readArchive } from '../server/instruments/class-folder-archive'
import { sheetPdf } from '../server/paper/sheet-pdf'
import { importTold } from '../server/sites/import-told'
import { pdfSheets, svgSheet, type TagRequest } from '../server/tags/tag-sheets'
import { readCatalogueFile } from './csv/catalogue'
import { readTable as readTableBytes, writeCsv } from './csv/csv'
import { type Chosen, type ImportContext, readImport } from './csv/preview'

// What the web server does on threads of its own. Each takes and answers plain values; `app/off-thread.server.ts` gives them their types back.

// What was sent is named by its path, so that its bytes are only ever here.

/** A file, or what was pasted. */
export type Told = { path: string } | { text: string }
const bytesOf = (told: Told): Uint8Array =>
  'path' in told ? readFileSync(told.path) : new TextEncoder().encode(told.text)

export async function readFolder(path: string): Promise<Parsed<FolderCable[]>> {
  const files = await readArchive(readFileSync(path))
  return files.ok ? readClassFolder(files.value) : files
}

export const readTable = ({ told, chosen, context }: TableRequest) => readImport(bytesOf(told), chosen, context)
export type TableRequest = { told: Told; chosen: Chosen; context: ImportContext }

export const readCatalogue = ({ path, unit }: CatalogueRequest) => readCatalogueFile(readFileSync(path), unit)
export type CatalogueRequest = { path: string; unit: LengthUnit }

export const readImageFile = ({ path, use }: ImageRequest): Promise<Parsed<KeptImage>> =>
  readImage(readFileSync(path), use)
export type ImageRequest = { path: string; use: ImageUse }

export const readDevice = (told: Told): Parsed<DeviceReading> => readFromDevice(bytesOf(told))

/** What a pasted log or listing says. */
export const readPastedText = (text: string): Said => readSaid(text)

export const importSite = importTold

export async function readSurveyFile({
  table,
  told,
  plan,
  unit,
}: SurveyRequest): Promise<Parsed<{ headers: string[]; read: SurveyRead }>> {
  const csv = await readTableBytes(bytesOf(told))
  if (!csv.ok) return csv
  const read = readSurveyTable(table, csv.value.headers, csv.value.rows, plan, unit)
  return read.ok ? parsed({ headers: csv.value.headers, read: read.value }) : read
}
export async function readPrices({ told, plan, supplier, today, unit }: PricesRequest): Promise<Parsed<PriceList>> {
  const table = await readTableBytes(bytesOf(told))
  return table.ok ? parsed(readPriceList(table.value, plan, supplier, today, unit)) : table
}
export type PricesRequest = {
  told: Told
  plan: Pick<Plan, 'kinds' | 'offers'>
  supplier: string
  today: string
  unit: LengthUnit
}

export type SurveyRequest = { table: SurveyTable; told: Told; plan: Plan; unit: LengthUnit }

export const tagPdf = (request: TagRequest): Promise<Uint8Array> => pdfSheets(request)
export const tagSheet = ({ sheet, ...request }: TagRequest & { sheet: number }): string | null =>
  svgSheet(request, sheet)

export const drawSheet = (sheet: Sheet): Promise<Uint8Array> => sheetPdf(sheet)

/** All that is handed over, made and kept. */
export const makeHandoverPack = (request: PackRequest): Promise<string | null> => makePack(request, writeCsv)

export const handoverSince = sinceThen
export const handoverLeaf = leafOf
export const handoverAhead = ahead
