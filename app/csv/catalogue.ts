import { type ReadCatalogue, readCatalogueTable } from '../../core/drawer/catalogue-table'
import { slugOf } from '../../core/plan/free-id'
import type { LengthUnit } from '../../core/quantity/length'
import { type Parsed, parsed } from '../../core/quantity/parsed'
import { type Csv, readTable } from './csv'

/** A catalogue from a file with a table. */
export async function readCatalogueFile(bytes: Uint8Array, unit: LengthUnit): Promise<Parsed<ReadCatalogue>> {
  const table = await readTable(bytes)
  return table.ok ? parsed(catalogueOf(table.value, unit)) : table
}

/** The kinds of cable that a table lists. */
export const catalogueOf = ({ headers, rows }: Csv, unit: LengthUnit): ReadCatalogue =>
  readCatalogueTable(headers, rows, (name) => slugOf(name, 'kind'), unit)
