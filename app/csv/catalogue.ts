import { type ReadCatalogue, readCatalogueTable } from '../../core/drawer/catalogue-table'
import { slugOf } from '../../core/plan/free-id'
import type { LengthUnit } from '../../core/quantity/length'
import { type Parsed, parsed } from '../../core/quantity/parsed'
import { readCsv } from './csv'

/** A catalogue from a CSV file. */
export function readCatalogueFile(bytes: Uint8Array, unit: LengthUnit): Parsed<ReadCatalogue> {
  const csv = readCsv(bytes)
  if (!csv.ok) return csv
  return parsed(readCatalogueTable(csv.value.headers, csv.value.rows, (name) => slugOf(name, 'kind'), unit))
}
