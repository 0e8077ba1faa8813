import Papa from 'papaparse'
import { decodeText } from '../../core/drawer/decode-text'
import { type Parsed, parsed, unreadable } from '../../core/quantity/parsed'
import { isWorkbook, readWorkbook } from './workbook'

/** A table as it was in its file: the first line and the lines below it, those without anything left out. */
export type Csv = { headers: string[]; rows: string[][]; encoding: string }

const MOST_ROWS = 20_000
const MOST_COLUMNS = 60

/** Reads a table from a workbook (.xlsx) or a CSV file; what is not a table is refused with what it looks like. */
export async function readTable(bytes: Uint8Array): Promise<Parsed<Csv>> {
  if (!isWorkbook(bytes)) return readCsv(bytes)
  const rows = await readWorkbook(bytes)
  return rows.ok ? shaped(rows.value, 'workbook') : rows
}

/** Reads a CSV file whatever its encoding and separator. */
export function readCsv(bytes: Uint8Array): Parsed<Csv> {
  const decoded = decodeText(bytes)
  if (!decoded.ok) return decoded
  const { data, errors } = Papa.parse<string[]>(decoded.value.text, {
    skipEmptyLines: 'greedy',
    preview: MOST_ROWS + 2,
  })
  const quotes = errors.find((error) => error.type === 'Quotes')
  if (quotes) {
    return unreadable(
      `A quotation mark is not closed or stands in the wrong place${quotes.row === undefined ? '' : `, near line ${quotes.row + 1}`}. Save the sheet as CSV again.`,
    )
  }
  return shaped(
    data.map((cells) => cells.map(asItWas)),
    decoded.value.encoding,
  )
}

/** The lines of a file as a table: the first names the columns. */
function shaped(lines: readonly string[][], encoding: string): Parsed<Csv> {
  const [headers, ...rows] = lines
  if (!headers || rows.length === 0)
    return unreadable('The table has no row below its first line; that line names the columns.')
  if (rows.length > MOST_ROWS)
    return unreadable(`The table has more than ${MOST_ROWS.toLocaleString('en')} rows. Import it in parts.`)
  if (headers.length > MOST_COLUMNS)
    return unreadable(`The first line has ${headers.length} columns; a table of cables has at most ${MOST_COLUMNS}.`)
  return parsed({
    headers: headers.map((header) => header.trim()),
    rows,
    encoding,
  })
}

/** A table as CSV that spreadsheets open without taking a cell for a formula; \`readCsv\` reads every cell back as it was. */
export const writeCsv = (rows: readonly (readonly string[])[]): string =>
  `${Papa.unparse(
    rows.map((cells) => cells.map(harmless)),
    { newline: '\r\n' },
  )}\r\n`

/** What a spreadsheet takes for a formula, at the start of a cell or of any line in it; one that is made harmless already is marked once more. */
const RUNS = /^(?='*[=+\-@\t])/
const MADE_HARMLESS = /^'(?='*[=+\-@\t])/

const harmless = (cell: string): string => linesOf(cell, (line) => line.replace(RUNS, "'"))
const asItWas = (cell: string): string => linesOf(cell, (line) => line.replace(MADE_HARMLESS, ''))

/** Each line of a cell by itself. */
const linesOf = (cell: string, each: (line: string) => string): string =>
  cell
    .split(/(\r\n|\r|\n)/)
    .map((piece, at) => (at % 2 === 0 ? each(piece) : piece))
    .join('')

export const csvFile = (name: string, rows: readonly (readonly string[])[]): Response =>
  // the mark tells office programs that this is UTF-8
  new Response(`\ufeff${writeCsv(rows)}`, {
    headers: {
      'Content-Type': 'text/csv; charset=utf-8',
      'Content-Disposition': `attachment; filename="${name.replace(/[^a-z0-9._-]/gi, '_')}.csv"`,
    },
  })
