import type { Mapping } from '../core/drawer/cable-table'
import type { ImageUse, KeptImage } from '../core/files/file-types'
import { type FolderCable, readClassFolder } from '../core/identity/class-folder'
import { readFromDevice } from '../core/identity/device-reading'
import type { DeviceReading } from '../core/identity/reading-shape'
import type { Plan } from '../core/plan/plan'
import { readPlanText } from '../core/plan/read'
import type { LengthUnit } from '../core/quantity/length'
import { type Parsed, parsed } from '../core/quantity/parsed'
import { readSurveyTable, type SurveyRead, type SurveyTable } from '../core/survey/tables'
import { readImage } from '../server/files/image'
import { type OpenedArchive, openArchive } from '../server/files/read-archive'
import { readArchive } from '../server/instruments/class-folder-archive'
import { pdfSheets, svgSheet, type TagRequest } from '../server/tags/tag-sheets'
import { readCatalogueFile } from './csv/catalogue'
import { readCsv } from './csv/csv'
import { type ImportContext, readImport } from './csv/preview'

// What the web server does on threads of its own. Each takes and answers plain values; `app/off-thread.server.ts` gives them their types back.

export const readPlan = readPlanText

export async function readFolder(bytes: Uint8Array): Promise<Parsed<FolderCable[]>> {
  const files = await readArchive(bytes)
  return files.ok ? readClassFolder(files.value) : files
}

export const readTable = ({ bytes, mapping, context }: TableRequest) => readImport(bytes, mapping, context)
export type TableRequest = { bytes: Uint8Array; mapping: Mapping | null; context: ImportContext }

export const readCatalogue = ({ bytes, unit }: CatalogueRequest) => readCatalogueFile(bytes, unit)
export type CatalogueRequest = { bytes: Uint8Array; unit: LengthUnit }

export const readImageFile = ({ bytes, use }: ImageRequest): Promise<Parsed<KeptImage>> => readImage(bytes, use)
export type ImageRequest = { bytes: Uint8Array; use: ImageUse }

export const readDevice = (bytes: Uint8Array): Parsed<DeviceReading> => readFromDevice(bytes)

export const openSiteArchive = (bytes: Uint8Array): Promise<Parsed<OpenedArchive>> => openArchive(bytes)

export function readSurveyFile({
  table,
  bytes,
  plan,
  unit,
}: SurveyRequest): Parsed<{ headers: string[]; read: SurveyRead }> {
  const csv = readCsv(bytes)
  if (!csv.ok) return csv
  const read = readSurveyTable(table, csv.value.headers, csv.value.rows, plan, unit)
  return read.ok ? parsed({ headers: csv.value.headers, read: read.value }) : read
}
export type SurveyRequest = { table: SurveyTable; bytes: Uint8Array; plan: Plan; unit: LengthUnit }

export const tagPdf = (request: TagRequest): Promise<Uint8Array> => pdfSheets(request)
export const tagSheet = ({ sheet, ...request }: TagRequest & { sheet: number }): string | null =>
  svgSheet(request, sheet)
