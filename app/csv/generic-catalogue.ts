import type { ReadCatalogue } from '../../core/drawer/catalogue-table'
import generic from '../../demo/catalogue.csv?raw'
import { catalogueOf } from './catalogue'
import { readCsv } from './csv'

/** The catalogue that ships with Hallway: invented, and complete enough to order from. */
export function genericCatalogue(): ReadCatalogue {
  const table = readCsv(new TextEncoder().encode(generic))
  if (!table.ok) throw new Error(table.problem)
  return catalogueOf(table.value, 'm')
}
