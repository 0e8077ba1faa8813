import type { Knex } from 'knex'
import { COLUMNS, columnUnits, type Sample } from '../../core/series/chunk'
import { samplesOf } from './series'

/** All readings of an instrument as lines of CSV, a chunk at a time, so that those of ten days take no more room than those of an hour. */
export async function* seriesCsv(knex: Knex, siteId: string, id: string): AsyncIterable<string> {
  yield `at,${COLUMNS.map((column) => `${column} (${columnUnits[column]})`).join(',')},drop\r\n`
  for await (const samples of samplesOf(knex, siteId, id)) yield samples.map(lineOf).join('')
}

/** Figures and an instant: nothing that a spreadsheet takes for a formula. */
const lineOf = (sample: Sample): string =>
  `${new Date(sample.at).toISOString()},${COLUMNS.map((column) => sample[column] ?? '').join(',')},${sample.drop ? 1 : ''}\r\n`
