import type { z } from 'zod'
import { type LengthUnit, parseLength } from '../quantity/length'
import { type Parsed, parsed, unreadable } from '../quantity/parsed'
import { CONSTRUCTIONS } from '../standards/grades'
import { parseMark, parsePowerMark, powerMarkOf } from '../standards/mark-text'
import { type CableKind, cableKindSchema } from '../vocabulary/cable'
import { endText, parseEnd } from './end-text'
import { FEED_WORDS, feedFrom, feedText } from './feed-text'
import { yesNo } from './yes-no'

/** Columns of a catalogue as a table: a row for each length a kind is sold in. */
export const CATALOGUE_COLUMNS = [
  'name',
  'first end',
  'second end',
  'mark',
  'power',
  'construction',
  'one way',
  'length',
  'price',
  'lead days',
  'return days',
  'note',
  'grams a metre',
  'feel',
  'strap',
  'angled',
  'feed',
  'needs',
  'in the box',
  'price of needs',
  'cord',
  'avoid',
] as const
type Column = (typeof CATALOGUE_COLUMNS)[number]

export type BadCatalogueRow = { line: number; problems: string[] }
export type ReadCatalogue = { kinds: CableKind[]; bad: BadCatalogueRow[] }

/**
 * Cable kinds from a table with these columns in any order; rows with one name are one kind in several lengths, and what they say of the
 * kind must agree. A faulty row is left out with what is wrong with it.
 */
export function readCatalogueTable(
  headers: readonly string[],
  rows: readonly (readonly string[])[],
  idOf: (name: string) => string,
  unit: LengthUnit = 'm',
): ReadCatalogue {
  const places = headers.map((header) => header.trim().toLowerCase())
  const missing = (['name', 'first end', 'second end', 'mark'] as const).filter((column) => !places.includes(column))
  if (missing.length > 0) {
    return { kinds: [], bad: [{ line: 1, problems: missing.map((column) => `the table has no column "${column}"`) }] }
  }
  const kinds = new Map<string, CableKind>()
  const bad: BadCatalogueRow[] = []
  for (const [at, cells] of rows.entries()) {
    const problems: string[] = []
    const kind = kindFrom((column) => cells[places.indexOf(column)]?.trim() ?? '', problems, idOf, unit)
    const known = kind && kinds.get(kind.name.toLowerCase())
    if (kind && known && !sameKind(kind, known))
      problems.push(`"${kind.name}" is described otherwise on an earlier line`)
    if (!kind || problems.length > 0) bad.push({ line: at + 2, problems })
    else if (!known) kinds.set(kind.name.toLowerCase(), kind)
    else known.stock = [...known.stock, ...kind.stock].sort((one, other) => one.length - other.length)
  }
  return { kinds: [...kinds.values()], bad }
}

const sameKind = (one: CableKind, other: CableKind): boolean =>
  JSON.stringify({ ...one, id: '', stock: [] }) === JSON.stringify({ ...other, id: '', stock: [] })

function kindFrom(
  cell: (column: Column) => string,
  problems: string[],
  idOf: (name: string) => string,
  unit: LengthUnit,
): CableKind | null {
  const read = <T>(column: Column, parse: (text: string) => Parsed<T>): T | undefined => {
    const text = cell(column)
    if (text === '') return undefined
    const answer = parse(text)
    if (answer.ok) return answer.value
    problems.push(`${column}: ${answer.problem}`)
    return undefined
  }
  const number = (column: Column): number | undefined => {
    const text = cell(column)
    if (text === '') return undefined
    const value = Number(text.replace(',', '.'))
    if (Number.isFinite(value)) return value
    problems.push(`${column}: "${text.slice(0, 24)}" is not a number`)
    return undefined
  }
  const power = read('power', parsePowerMark)
  const length = read('length', (text) => parseLength(text, unit))
  const price = number('price')
  if ((length === undefined) !== (price === undefined)) problems.push('a length and its price come together')
  const construction = cell('construction').toLowerCase()
  const input: Partial<z.input<typeof cableKindSchema>> = {
    id: idOf(cell('name')),
    name: cell('name'),
    ends: [read('first end', parseEnd), read('second end', parseEnd)] as never,
    grade: read('mark', parseMark),
    amps: power?.amps,
    volts: power?.volts === 50 ? 50 : undefined,
    construction:
      CONSTRUCTIONS.find((each) => each === construction) ??
      (construction === '' ? undefined : (construction as never)),
    oneWay: /^(yes|one|true|x)$/i.test(cell('one way')),
    stock: length !== undefined && price !== undefined ? [{ length, price }] : [],
    leadDays: number('lead days'),
    returnDays: number('return days'),
    note: cell('note') || undefined,
    ...feedOf(cell('feed'), problems),
    wants: namesIn(cell('needs')),
    includes: namesIn(cell('in the box')),
    wantsPrice: number('price of needs'),
    cord: read('cord', (text) => parseLength(text, unit)),
    avoid: read('avoid', parseAvoid),
    hand: handFrom(cell, number('grams a metre')),
  }
  if (problems.length > 0) return null
  const checked = cableKindSchema.safeParse(input)
  if (checked.success) return checked.data
  for (const issue of checked.error.issues) problems.push(`${String(issue.path[0] ?? 'row')}: ${issue.message}`)
  return null
}

/** Since when a kind is not bought, and why: "2026-11-01 ran hot twice". */
function parseAvoid(text: string): Parsed<NonNullable<CableKind['avoid']>> {
  const [, on = '', why = ''] = /^(\d{4}-\d\d-\d\d) (.+)$/.exec(text) ?? []
  return on === '' ? unreadable('write the day and why, such as 2026-11-01 ran hot twice') : parsed({ on, why })
}

const namesIn = (text: string): string[] | undefined => {
  const names = text.split(';').map((name) => name.trim())
  return text === '' ? undefined : names.filter(Boolean)
}

function feedOf(text: string, problems: string[]): Pick<CableKind, 'feed' | 'feedEnd'> {
  if (text === '') return {}
  const word = FEED_WORDS.find((each) => each === text.toLowerCase())
  if (!word) problems.push(`feed: "${text.slice(0, 40)}" is none of ${FEED_WORDS.join(', ')}`)
  return word ? feedFrom(word) : {}
}

/** How a lead of the kind is in the hand; nothing where no cell says so. */
function handFrom(cell: (column: Column) => string, gramsPerMetre: number | undefined): CableKind['hand'] {
  const yes = (column: Column): boolean | undefined =>
    cell(column) === '' ? undefined : /^(yes|true|x|1)$/i.test(cell(column))
  const feel = cell('feel').toLowerCase()
  const hand = { gramsPerMetre, feel: feel === '' ? undefined : feel, strap: yes('strap'), angled: yes('angled') }
  const said = Object.entries(hand).filter(([, value]) => value !== undefined)
  return said.length > 0 ? (Object.fromEntries(said) as CableKind['hand']) : undefined
}

/** A catalogue as the table that `readCatalogueTable` reads back. */
export function catalogueTable(kinds: readonly CableKind[]): string[][] {
  const rows = kinds.flatMap((kind) => {
    const power = powerMarkOf(kind) ?? ''
    const head = [
      kind.name,
      endText(kind.ends[0]),
      endText(kind.ends[1]),
      kind.grade,
      power,
      kind.construction,
      kind.oneWay ? 'yes' : 'no',
    ]
    const { gramsPerMetre, feel, strap, angled } = kind.hand ?? {}
    const tail = [
      String(kind.leadDays ?? ''),
      String(kind.returnDays ?? ''),
      kind.note ?? '',
      String(gramsPerMetre ?? ''),
      feel ?? '',
      yesNo(strap),
      yesNo(angled),
      kind.feed ? feedText({ feed: kind.feed, feedEnd: kind.feedEnd }) : '',
      kind.wants?.join('; ') ?? '',
      kind.includes?.join('; ') ?? '',
      String(kind.wantsPrice ?? ''),
      kind.cord === undefined ? '' : `${kind.cord} m`,
      kind.avoid ? `${kind.avoid.on} ${kind.avoid.why}` : '',
    ]
    const stock = kind.stock.map(({ length, price }) => [`${length} m`, String(price)])
    return (stock.length > 0 ? stock : [['', '']]).map((each) => [...head, ...each, ...tail])
  })
  return [[...CATALOGUE_COLUMNS], ...rows]
}
