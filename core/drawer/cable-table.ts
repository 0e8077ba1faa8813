import type { z } from 'zod'
import { basisNames } from '../observe/basis'
import { knownCable } from '../observe/known'
import { learnedOf, learntOfCable } from '../observe/learned'
import type { Statement, Unwritten } from '../observe/observation'
import { nextTag } from '../plan/next-tag'
import type { Plan } from '../plan/plan'
import { type LengthUnit, parseLength } from '../quantity/length'
import type { Parsed } from '../quantity/parsed'
import { type CableGrade, CONSTRUCTIONS, gradeFacts } from '../standards/grades'
import { parseMark, parsePowerMark, powerMarkOf, saysUnknown, saysUnmarked } from '../standards/mark-text'
import { CABLE_STANDINGS, type Cable, cableSchema } from '../vocabulary/cable'
import { foldTag } from '../vocabulary/fields'
import { endsApart, endText, parseEnd } from './end-text'
import { FEED_WORDS, feedFrom, feedText } from './feed-text'
import { YES_NO, yesNo } from './yes-no'

/** What a column of a table of cables can hold. */
export const CABLE_COLUMNS = [
  'tag',
  'first end',
  'second end',
  'length',
  'mark',
  'power',
  'construction',
  'thickness',
  'gauge',
  'feed',
  'usb 2.0 pair',
  'copper',
  'passes back',
  'passes on',
  'one way',
  'supplied with',
  'kind',
  'standing',
  'note',
] as const
export type CableColumn = (typeof CABLE_COLUMNS)[number]
/** Written beside what is printed on a cable, and never read back: what is believed is not what is marked. */
const BELIEVED_COLUMN = 'believed'
/** Without these no cable can be read. Where a table has no tags, they are given. */
export const NEEDED_COLUMNS: readonly CableColumn[] = ['first end', 'second end', 'length']

/** Which column of the file holds what: the position of each, from 0; left out where the file has none. */
export type Mapping = { [Column in CableColumn]?: number }

/** Words that headers use, beside the columns' own names. */
const headerWords: Record<CableColumn, readonly string[]> = {
  tag: ['id', 'label', 'number', 'no', 'nr', '#', 'cable', 'asset'],
  'first end': ['end 1', 'end a', 'from', 'host end', 'connector 1', 'connector a', 'plug 1', 'plug a', 'side a'],
  'second end': ['end 2', 'end b', 'to', 'device end', 'connector 2', 'connector b', 'plug 2', 'plug b', 'side b'],
  length: ['length m', 'length (m)', 'len', 'metres', 'meters', 'length ft', 'length (ft)', 'feet', 'm', 'ft'],
  mark: ['rate', 'speed', 'grade', 'type', 'version', 'printed', 'gb/s', 'rating', 'standard', 'spec'],
  power: ['watts', 'w', 'amps', 'current', 'charging', 'pd', 'rating'],
  construction: ['active/passive', 'build', 'active'],
  thickness: ['diameter', 'mm', 'thickness mm', 'thickness (mm)'],
  gauge: ['awg', 'wire gauge', 'gauge (awg)'],
  feed: ['power feed', 'own supply', 'supply'],
  'usb 2.0 pair': ['usb 2.0', 'has usb 2.0'],
  copper: ['metal'],
  'passes back': ['power through', 'pass through'],
  'passes on': ['feeds the device', 'power on'],
  'one way': ['direction', 'directional'],
  'supplied with': ['came with', 'device', 'pairing', 'belongs to'],
  kind: ['article', 'product', 'sku'],
  standing: ['status', 'where', 'state', 'location'],
  note: ['notes', 'comment', 'comments', 'remark', 'remarks'],
}

const plain = (header: string): string =>
  header
    .toLowerCase()
    .replace(/[_\s]+/g, ' ')
    .trim()

/** Rows of a table that are looked at to tell what its columns hold. */
const LOOKED_AT = 200

/** Whether a cell reads as what a column holds; of columns that hold free text nothing can be told from what stands in them. */
const readsAs: Partial<Record<CableColumn, (cell: string) => boolean>> = {
  'first end': (cell) => parseEnd(cell).ok || endsApart(cell)?.every((end) => parseEnd(end).ok) === true,
  'second end': (cell) => parseEnd(cell).ok || endsApart(cell)?.every((end) => parseEnd(end).ok) === true,
  length: (cell) => parseLength(cell).ok,
  mark: (cell) => saysUnmarked(cell) || saysUnknown(cell) || parseMark(cell).ok || parseMark(cell, ['hdmi']).ok,
  power: (cell) => parsePowerMark(cell).ok,
}
/** So much of what stands in a column has to read as what its name says. */
const ENOUGH = 0.25
/** What a column is taken for without a name has to read so nearly everywhere. */
const NEARLY_ALL = 0.8
const LONGEST_TAG = 24

/**
 * Which column holds what: own names first, then the words people use where what stands below reads so, and then what stands in columns whose names say nothing. No
 * column is taken twice, but for one that names both ends.
 */
export function guessMapping(headers: readonly string[], rows: readonly (readonly string[])[] = []): Mapping {
  const names = headers.map(plain)
  const mapping: Mapping = {}
  const taken = new Set<number>()
  const take = (column: CableColumn, at: number): void => {
    if (at < 0 || taken.has(at) || mapping[column] !== undefined) return
    mapping[column] = at
    taken.add(at)
  }
  const cellsOf = (at: number): string[] =>
    rows.slice(0, LOOKED_AT).flatMap((cells) => (cells[at]?.trim() ? [cells[at].trim()] : []))
  const share = (at: number, holds: (cell: string) => boolean): number => {
    const cells = cellsOf(at)
    return cells.length === 0 ? 0 : cells.filter(holds).length / cells.length
  }
  const fits = (column: CableColumn, at: number): boolean => {
    const holds = readsAs[column]
    return !holds || cellsOf(at).length === 0 || share(at, holds) >= ENOUGH
  }
  for (const column of CABLE_COLUMNS) take(column, names.indexOf(column))
  for (const column of CABLE_COLUMNS)
    for (const word of headerWords[column]) if (fits(column, names.indexOf(word))) take(column, names.indexOf(word))
  const free = (): number[] => names.flatMap((_, at) => (taken.has(at) ? [] : [at]))
  for (const column of ['first end', 'second end', 'length', 'mark'] as const) {
    const holds = readsAs[column]
    if (holds) take(column, free().find((at) => share(at, holds) >= NEARLY_ALL) ?? -1)
  }
  take('tag', free().find((at) => isTagColumn(cellsOf(at))) ?? -1)
  const both = mapping['first end'] ?? mapping['second end']
  // one column may name both ends
  if (both !== undefined && share(both, (cell) => endsApart(cell) !== null) >= ENOUGH)
    return { ...mapping, 'first end': both, 'second end': both }
  return mapping
}

/** Short, each but once, and no plain figures: a column of tags. */
const isTagColumn = (cells: readonly string[]): boolean =>
  cells.length > 0 &&
  new Set(cells.map(foldTag)).size === cells.length &&
  cells.every((cell) => cell.length <= LONGEST_TAG && /[a-z]/i.test(cell) && /\d/.test(cell))

/** What bare figures below a header are in: the unit it names, otherwise the reader's own. */
export function bareUnit(header: string | undefined, own: LengthUnit): LengthUnit {
  if (/\b(ft|feet)\b/i.test(header ?? '')) return 'ft'
  return /\b(m|met(re|er)s?)\b/i.test(header ?? '') ? 'm' : own
}

export type BadRow = { line: number; cells: readonly string[]; problems: string[] }
/** A cable of a row, and what its row says is printed on it. */
export type GoodRow = { line: number; cable: Cable; marks: Unwritten<Statement>[] }
/** Words of a table that somebody may say the meaning of, once for all rows that have them. */
export const SETTLED = ['end', 'mark', 'power'] as const
export type Settling = { column: (typeof SETTLED)[number]; text: string; as: string }
/** A word that could not be read, and in how many rows it stands. */
export type Unread = Omit<Settling, 'as'> & { rows: number }

export type ReadTable = {
  good: GoodRow[]
  bad: BadRow[]
  unread: Unread[]
  /** Columns without which no cable can be read, and which nobody has chosen: said once, and not for every row. */
  unchosen: CableColumn[]
}

/** What a table of cables is read against. */
export type TableContext = {
  plan: Pick<Plan, 'cables' | 'devices' | 'kinds'>
  /** What bare lengths are in where no header says so. */
  unit: LengthUnit
  idOf: (tag: string) => string
  /** What words mean that stand for nothing known. */
  settled?: readonly Settling[]
}

/**
 * Cables from the rows of a table, each row on its own: what is wrong with one says nothing about the others. Lines are numbered as an
 * editor numbers them, the header being line 1. Tags must be new to the site and to the table.
 */
export function readCableTable(
  headers: readonly string[],
  rows: readonly (readonly string[])[],
  mapping: Mapping,
  context: TableContext,
): ReadTable {
  const taken = new Map(context.plan.cables.map((cable) => [foldTag(cable.tag), 'the site']))
  const names = namesOf(context.plan)
  const unit = bareUnit(mapping.length === undefined ? undefined : headers[mapping.length], context.unit)
  const good: ReadTable['good'] = []
  const bad: BadRow[] = []
  const given = tagsAfter(context.plan.cables.map(({ tag }) => tag))
  const unread = new Map<string, Unread>()
  const settled = new Map(context.settled?.map(({ column, text, as }) => [wordKey(column, text), as]))
  const unchosen = NEEDED_COLUMNS.filter((column) => mapping[column] === undefined)
  if (unchosen.length > 0) return { good, bad, unread: [], unchosen }
  const endsTogether = mapping['first end'] === mapping['second end']
  for (const [at, cells] of rows.entries()) {
    const line = at + 2
    const problems: string[] = []
    const whole = (column: CableColumn): string => cells[mapping[column] ?? -1]?.trim() ?? ''
    const apart = endsTogether ? endsApart(whole('first end')) : null
    const said = (column: CableColumn): string =>
      column === 'first end' && apart ? apart[0] : column === 'second end' && apart ? apart[1] : whole(column)
    const tag = mapping.tag === undefined ? given() : whole('tag')
    const cell = (column: CableColumn): string => {
      if (column === 'tag') return tag
      const kind = settledColumn(column)
      return (kind && settled.get(wordKey(kind, said(column)))) ?? said(column)
    }
    const misread = (column: CableColumn): void => {
      const kind = settledColumn(column)
      if (!kind) return
      const key = wordKey(kind, said(column))
      const known = unread.get(key)
      unread.set(key, { column: kind, text: known?.text ?? said(column), rows: (known?.rows ?? 0) + 1 })
    }
    const row = cableFrom(cell, unit, names, context, problems, misread)
    const owner = taken.get(foldTag(tag))
    if (tag !== '' && owner) problems.push(`tag: "${tag.slice(0, 24)}" is already on a cable of ${owner}`)
    if (row && problems.length === 0) {
      good.push({ line, ...row })
      taken.set(foldTag(row.cable.tag), `line ${line}`)
    } else bad.push({ line, cells, problems })
  }
  return { good, bad, unread: [...unread.values()].sort((one, other) => other.rows - one.rows), unchosen }
}

const settledColumn = (column: CableColumn): Settling['column'] | null =>
  column === 'first end' || column === 'second end' ? 'end' : column === 'mark' || column === 'power' ? column : null
const wordKey = (column: Settling['column'], text: string): string => `${column} ${text.toLowerCase()}`

/** Tags for cables that have none, each the next after the last. */
function tagsAfter(tags: readonly string[]): () => string {
  const seen = new Set(tags.map(foldTag))
  let last: string | null = null
  return () => {
    do last = nextTag(last === null ? tags : [last])
    while (seen.has(foldTag(last)))
    return last
  }
}

type Names = { devices: ReadonlyMap<string, string>; kinds: ReadonlyMap<string, string> }

const namesOf = ({ devices, kinds }: TableContext['plan']): Names => {
  const ids = (list: readonly { id: string; name: string }[]) =>
    new Map(list.flatMap(({ id, name }) => [[name.toLowerCase(), id] as const, [id.toLowerCase(), id] as const]))
  return { devices: ids(devices), kinds: ids(kinds) }
}

function cableFrom(
  cell: (column: CableColumn) => string,
  unit: 'm' | 'ft',
  names: Names,
  context: TableContext,
  problems: string[],
  misread: (column: CableColumn) => void,
): Omit<GoodRow, 'line'> | null {
  for (const column of ['tag', ...NEEDED_COLUMNS] as const)
    if (cell(column) === '') problems.push(`${column}: it is missing`)
  const read = <T>(column: CableColumn, parse: (text: string) => Parsed<T>): T | undefined => {
    const text = cell(column)
    if (text === '') return undefined
    const answer = parse(text)
    if (answer.ok) return answer.value
    misread(column)
    problems.push(`${column}: ${answer.problem}`)
    return undefined
  }
  const oneOf = <T extends string>(column: CableColumn, allowed: readonly T[]): T | undefined => {
    const text = cell(column).toLowerCase()
    const found = allowed.find((each) => each === text)
    if (text !== '' && !found) problems.push(`${column}: "${text.slice(0, 40)}" is none of ${allowed.join(', ')}`)
    return found
  }
  const named = (column: CableColumn, ids: ReadonlyMap<string, string>, what: string): string | undefined => {
    const text = cell(column)
    const id = ids.get(text.toLowerCase())
    if (text !== '' && !id) problems.push(`${column}: the site has no ${what} "${text.slice(0, 40)}"`)
    return id
  }
  const first = read('first end', parseEnd)
  const second = read('second end', parseEnd)
  const length = read('length', (text) => parseLength(text, unit))
  const connectors = [first, second].flatMap((end) => end?.connector ?? [])
  const mark = saysUnmarked(cell('mark'))
    ? null
    : saysUnknown(cell('mark'))
      ? undefined
      : read('mark', (text) => parseMark(text, connectors))
  const power = saysUnknown(cell('power')) ? undefined : read('power', parsePowerMark)
  const construction = oneOf('construction', CONSTRUCTIONS)
  const oneWay = oneOf('one way', ['yes', 'no', 'both', 'one', 'true', 'false', 'x'])
  const feed = oneOf('feed', FEED_WORDS)
  const pair = oneOf('usb 2.0 pair', YES_NO)
  const copper = oneOf('copper', YES_NO)
  const standing = oneOf('standing', CABLE_STANDINGS)
  const suppliedWith = named('supplied with', names.devices, 'device')
  const kind = named('kind', names.kinds, 'cable kind')
  const figure = (column: CableColumn, unitWord: string): number | undefined => {
    const text = cell(column)
    if (text === '') return undefined
    const plain = text.toLowerCase().replace(',', '.').replace(unitWord, '').trim()
    const number = plain === '' ? Number.NaN : Number(plain)
    if (Number.isFinite(number)) return number
    problems.push(`${column}: "${text.slice(0, 24)}" is not a figure`)
    return undefined
  }
  const thickness = figure('thickness', 'mm')
  const awg = figure('gauge', 'awg')
  const passesBack = figure('passes back', 'w')
  const passesOn = figure('passes on', 'w')
  if (problems.length > 0 || !first || !second || length === undefined) return null
  const input: z.input<typeof cableSchema> = {
    id: context.idOf(cell('tag')),
    tag: cell('tag'),
    kind,
    ends: [first, second],
    length,
    construction,
    thickness,
    awg,
    ...(feed ? feedFrom(feed) : {}),
    pair: pair && pair === 'yes',
    copper: copper && copper === 'yes',
    passesBack,
    passesOn,
    oneWay: ['yes', 'one', 'true', 'x'].includes(oneWay ?? ''),
    suppliedWith,
    standing,
    note: cell('note') || undefined,
  }
  const checked = cableSchema.safeParse(input)
  if (checked.success) return { cable: checked.data, marks: marksOf(mark, power) }
  for (const issue of checked.error.issues) problems.push(`${String(issue.path[0] ?? 'row')}: ${issue.message}`)
  return null
}

const UNMARKED = 'unmarked'

/** What a row says is printed on the cable; nothing where it says nothing. */
function marksOf(
  grade: CableGrade | null | undefined,
  power: { amps: 0 | 3 | 5; volts: 20 | 50 } | undefined,
): Unwritten<Statement>[] {
  if (grade === undefined && power === undefined) return []
  const volts = power?.volts === 50 ? { volts: 50 as const } : {}
  return [
    {
      kind: 'statement',
      basis: 'claimed',
      ...(grade === undefined ? {} : { grade }),
      ...(power ? { amps: power.amps, ...volts } : {}),
    },
  ]
}

/**
 * Cables as a table again: what `readCableTable` reads back, for spreadsheets. What is printed on a cable and what is believed of it stand in columns of
 * their own. So importing the table never makes a mark of a listing or a measurement.
 */
export function cableTable(plan: Plan, cables: readonly Cable[]): string[][] {
  const learned = learnedOf(plan)
  const deviceNames = new Map(plan.devices.map(({ id, name }) => [id, name]))
  const kinds = new Map(plan.kinds.map((kind) => [kind.id, kind]))
  return [
    [...CABLE_COLUMNS, BELIEVED_COLUMN],
    ...cables.map((cable) => {
      const said = learntOfCable(learned, cable.id)
      const kind = kinds.get(cable.kind ?? '')
      const { grade } = knownCable(cable, kind, said)
      const mark = said?.grade.claimed?.value
      return [
        cable.tag,
        endText(cable.ends[0]),
        endText(cable.ends[1]),
        `${cable.length} m`,
        mark ? gradeFacts[mark].name : said?.unmarked ? UNMARKED : '',
        powerMarkOf({ amps: said?.amps.claimed?.value, volts: said?.volts.claimed?.value }) ?? '',
        cable.construction,
        cable.thickness === undefined ? '' : `${cable.thickness} mm`,
        cable.awg === undefined ? '' : `AWG ${cable.awg}`,
        feedText(cable),
        yesNo(cable.pair),
        yesNo(cable.copper),
        cable.passesBack === undefined ? '' : `${cable.passesBack} W`,
        cable.passesOn === undefined ? '' : `${cable.passesOn} W`,
        cable.oneWay ? 'yes' : 'no',
        deviceNames.get(cable.suppliedWith ?? '') ?? '',
        kind?.name ?? '',
        cable.standing,
        cable.note ?? '',
        grade.value === null ? '' : `${gradeFacts[grade.value].name} (${basisNames[grade.basis]})`,
      ]
    }),
  ]
}
