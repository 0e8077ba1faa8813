import {
  type BadRow,
  CABLE_COLUMNS,
  type CableColumn,
  type GoodRow,
  guessMapping,
  type Mapping,
  readCableTable,
  SETTLED,
  type Settling,
  type TableContext,
  type Unread,
} from '../../core/drawer/cable-table'
import { freeIds, slugOf } from '../../core/plan/free-id'
import type { Plan } from '../../core/plan/plan'
import type { LengthUnit } from '../../core/quantity/length'
import { type Parsed, parsed } from '../../core/quantity/parsed'
import { readTable } from './csv'

/** What a table is read against, small enough to hand to a worker. */
export type ImportContext = Pick<TableContext, 'plan' | 'unit'>

export const importContext = (plan: Plan, unit: LengthUnit): ImportContext => ({
  plan: {
    // only their ids and tags matter here
    cables: plan.cables.map((cable) => ({ ...cable, note: undefined })),
    devices: plan.devices,
    kinds: plan.kinds,
  },
  unit,
})

export type ReadImport = {
  headers: string[]
  mapping: Mapping
  encoding: string
  good: GoodRow[]
  bad: BadRow[]
  unread: Unread[]
  unchosen: CableColumn[]
}

/** What a person chose: which column holds what, where it is not as guessed, and what words mean that nobody could read. */
export type Chosen = { mapping: Mapping | null; settled: readonly Settling[] }
export const NOTHING_CHOSEN: Chosen = { mapping: null, settled: [] }

/** Reads a file as a table of cables; without a mapping its headers tell. The page and the server read it alike. */
export async function readImport(
  bytes: Uint8Array,
  { mapping: wanted, settled }: Chosen,
  context: ImportContext,
): Promise<Parsed<ReadImport>> {
  const csv = await readTable(bytes)
  if (!csv.ok) return csv
  const { headers, rows, encoding } = csv.value
  const mapping = wanted ?? guessMapping(headers, rows)
  const idOf = freeIds(context.plan.cables.map((cable) => cable.id))
  const read = readCableTable(headers, rows, mapping, {
    ...context,
    settled,
    idOf: (tag) => idOf(slugOf(tag, 'cable')),
  })
  return parsed({ headers, mapping, encoding, ...read })
}

/** Rows that a page shows of each sort; the rest is counted. */
const SHOWN = 50

export type Preview = Omit<ReadImport, 'good' | 'bad'> & {
  good: { count: number; first: ReadImport['good'] }
  bad: { count: number; first: BadRow[] }
}

export const previewOf = ({ good, bad, ...rest }: ReadImport): Preview => ({
  ...rest,
  good: { count: good.length, first: good.slice(0, SHOWN) },
  bad: { count: bad.length, first: bad.slice(0, SHOWN).map((row) => ({ ...row, cells: row.cells.slice(0, 12) })) },
})

/** The name of the control that says which column of the file holds `column`. */
export const controlOf = (column: CableColumn): string => `column-${column.replace(' ', '-')}`

/** The mapping that a form says; null where it says nothing, as before scripts load. */
export function mappingFrom(form: FormData): Mapping | null {
  const chosen = CABLE_COLUMNS.flatMap((column) => {
    const at = form.get(controlOf(column))
    return typeof at === 'string' && /^\d{1,2}$/.test(at) ? [[column, Number(at)] as const] : []
  })
  return chosen.length > 0 ? Object.fromEntries(chosen) : null
}

/** The names of the three controls that say what a word means, one after the other for each word. */
export const SETTLE = { column: 'settle-column', text: 'settle-text', as: 'settle-as' } as const

/** All that a form chooses. */
export function chosenFrom(form: FormData): Chosen {
  const said = (name: string): string[] => form.getAll(name).map(String)
  const [columns, texts, meanings] = [said(SETTLE.column), said(SETTLE.text), said(SETTLE.as)]
  const settled = columns.flatMap((name, at): Settling[] => {
    const column = SETTLED.find((each) => each === name)
    const [text, as] = [texts[at], meanings[at]]
    return column && text !== undefined && as ? [{ column, text, as }] : []
  })
  return { mapping: mappingFrom(form), settled }
}
