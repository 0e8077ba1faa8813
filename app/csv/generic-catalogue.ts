import type { ReadCatalogue } from '../../core/drawer/catalogue-table'
import generic from '../../demo/catalogue.csv?raw'
import { readCatalogueFile } from './catalogue'

/** The catalogue that ships with Hallway: invented, and complete enough to order from. */
export function genericCatalogue(): ReadCatalogue {
  const read = readCatalogueFile(new TextEncoder().encode(generic), 'm')
  if (!read.ok) throw new Error(read.problem)
  return read.value
}
