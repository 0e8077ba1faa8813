import { unzipSync } from 'fflate'
import readWorkbookFile from 'read-excel-file/universal'
import { LARGEST_TABLE_BYTES } from '../../core/drawer/decode-text'
import { type Parsed, parsed, unreadable } from '../../core/quantity/parsed'

/** What a workbook unpacks to at most; a sheet of 20,000 rows is some ten megabytes. */
const LARGEST_UNPACKED_BYTES = 60_000_000

/** Whether a file is packed as workbooks are (.xlsx): it begins like a zip archive. */
export const isWorkbook = (bytes: Uint8Array): boolean =>
  bytes[0] === 0x50 && bytes[1] === 0x4b && bytes[2] === 0x03 && bytes[3] === 0x04

const NO_WORKBOOK = 'This workbook cannot be read. Save the sheet as .xlsx or as CSV.'

/** The cells of the first sheet of a workbook (.xlsx, ECMA-376) that has any, as texts: what a formula came to, days as 2026-11-29. */
export async function readWorkbook(bytes: Uint8Array): Promise<Parsed<string[][]>> {
  if (bytes.length > LARGEST_TABLE_BYTES)
    return unreadable(
      `The file has ${Math.round(bytes.length / 1e6)} MB; a table has at most ${LARGEST_TABLE_BYTES / 1e6} MB.`,
    )
  try {
    let unpacked = 0
    // looks at the sizes alone
    unzipSync(bytes, {
      filter: ({ originalSize }) => {
        unpacked += originalSize
        return false
      },
    })
    if (unpacked > LARGEST_UNPACKED_BYTES)
      return unreadable('The workbook is too large. Save the one sheet with the table as CSV.')
    const sheets = await readWorkbookFile(bytes.slice().buffer)
    const sheet = sheets.find(({ data }) => data.some((row) => row.some((cell) => cell !== null)))
    if (!sheet) return unreadable('The workbook has no sheet with anything in it.')
    return parsed(sheet.data.map((row) => row.map(cellText)).filter((row) => row.some((cell) => cell.trim() !== '')))
  } catch {
    return unreadable(NO_WORKBOOK)
  }
}

function cellText(cell: unknown): string {
  if (cell === null || cell === undefined) return ''
  if (cell instanceof Date) return Number.isNaN(cell.getTime()) ? '' : cell.toISOString().slice(0, 10)
  if (typeof cell === 'boolean') return cell ? 'yes' : 'no'
  return String(cell)
}
