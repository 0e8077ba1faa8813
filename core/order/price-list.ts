import type { Plan } from '../plan/plan'
import { type LengthUnit, parseLength, sameLength } from '../quantity/length'
import { plainText } from '../quantity/parsed'
import { PORT_SITES, type PortSite } from '../vocabulary/device'
import { type Offer, offerSchema } from '../vocabulary/order'
import type { Day } from './days'

/** Columns of a supplier's price list: a row for each length of each kind. */
export const PRICE_LIST_COLUMNS = [
  'kind',
  'length',
  'price',
  'number',
  'words',
  'available',
  'lead days',
  'return days',
  'not taken back from',
] as const
type Column = (typeof PRICE_LIST_COLUMNS)[number]

export type PriceList = {
  offers: Omit<Offer, 'id'>[]
  bad: { line: number; problems: string[] }[]
}

/**
 * The price list of a supplier, with these columns in any order. A kind is one of the catalogue, by its name, or one whose number this supplier gave before.
 * A faulty row is left out with what is wrong with it. A length that the catalogue has already stays what it is there.
 */
export function readPriceList(
  { headers, rows }: { headers: readonly string[]; rows: readonly (readonly string[])[] },
  plan: Pick<Plan, 'kinds' | 'offers'>,
  supplier: string,
  today: Day,
  unit: LengthUnit = 'm',
): PriceList {
  const places = headers.map((header) => header.trim().toLowerCase())
  const missing = (['length', 'price'] as const).filter((column) => !places.includes(column))
  if (!places.includes('kind') && !places.includes('number')) missing.unshift('kind' as never)
  if (missing.length > 0)
    return { offers: [], bad: [{ line: 1, problems: missing.map((column) => `the table has no column "${column}"`) }] }
  const known = knownBy(plan, supplier)
  const offers: PriceList['offers'] = []
  const bad: PriceList['bad'] = []
  for (const [at, cells] of rows.entries()) {
    const cell = (column: Column): string => plainText(cells[places.indexOf(column)] ?? '')
    const problems: string[] = []
    const number = (column: Column): number | undefined => {
      const text = cell(column).replace(',', '.')
      if (text === '') return undefined
      if (/^\d+(\.\d+)?$/.test(text)) return Number(text)
      problems.push(`${column}: "${text.slice(0, 24)}" is not a number`)
      return undefined
    }
    const kind = known.byName.get(cell('kind').toLowerCase()) ?? known.byNumber.get(cell('number').toLowerCase())
    if (!kind)
      problems.push(
        cell('kind') === ''
          ? `number: "${cell('number').slice(0, 40)}" is none that this supplier gave before`
          : `kind: "${cell('kind').slice(0, 40)}" is not in the catalogue`,
      )
    const length = parseLength(cell('length'), unit)
    if (!length.ok) problems.push(`length: ${length.problem}`)
    const excludes = cell('not taken back from')
      .split(';')
      .map((each) => each.trim().toLowerCase())
      .filter(Boolean)
    const strange = excludes.find((each) => !(PORT_SITES as readonly string[]).includes(each))
    if (strange) problems.push(`not taken back from: "${strange.slice(0, 24)}" is none of ${PORT_SITES.join(', ')}`)
    const stock = kind?.stock ?? []
    const given = {
      supplier,
      kind: kind?.id,
      length: length.ok ? (stock.find((each) => sameLength(each.length, length.value))?.length ?? length.value) : 0,
      price: number('price'),
      number: cell('number') || undefined,
      words: cell('words') || undefined,
      available: number('available'),
      leadDays: number('lead days'),
      returnDays: number('return days'),
      excludes: excludes.length > 0 ? (excludes as PortSite[]) : undefined,
      seen: today,
    }
    if (problems.length === 0) {
      const read = offerSchema.omit({ id: true }).safeParse(withoutEmpty(given))
      if (read.success) offers.push(read.data)
      else for (const issue of read.error.issues) problems.push(`${wordOf(String(issue.path[0]))}: ${issue.message}`)
    }
    if (problems.length > 0) bad.push({ line: at + 2, problems })
  }
  return { offers, bad }
}

const withoutEmpty = (fields: object): object =>
  Object.fromEntries(Object.entries(fields).filter(([, value]) => value !== undefined))

const wordOf = (field: string): string =>
  ({ leadDays: 'lead days', returnDays: 'return days', excludes: 'not taken back from' })[field] ?? field

/** The kinds of a site by their names, and by the numbers that a supplier gave them where one number is one kind. */
function knownBy({ kinds, offers }: Pick<Plan, 'kinds' | 'offers'>, supplier: string) {
  const byName = new Map(kinds.map((kind) => [kind.name.toLowerCase(), kind]))
  const byKindId = new Map(kinds.map((kind) => [kind.id, kind]))
  const byNumber = new Map<string, (typeof kinds)[number]>()
  for (const offer of offers) {
    const kind = byKindId.get(offer.kind)
    if (offer.supplier === supplier && offer.number && kind) byNumber.set(offer.number.toLowerCase(), kind)
  }
  return { byName, byNumber }
}

/** What a supplier sells as the table that `readPriceList` reads back. */
export function priceListTable({ kinds, offers }: Pick<Plan, 'kinds' | 'offers'>, supplier: string): string[][] {
  const names = new Map(kinds.map(({ id, name }) => [id, name]))
  return [
    [...PRICE_LIST_COLUMNS],
    ...offers.flatMap((offer) =>
      offer.supplier === supplier
        ? [
            [
              names.get(offer.kind) ?? offer.kind,
              `${offer.length} m`,
              String(offer.price),
              offer.number ?? '',
              offer.words ?? '',
              String(offer.available ?? ''),
              String(offer.leadDays ?? ''),
              String(offer.returnDays ?? ''),
              (offer.excludes ?? []).join('; '),
            ],
          ]
        : [],
    ),
  ]
}
