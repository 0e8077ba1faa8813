import type { z } from 'zod'
import { CABLE_STANDINGS, type Cable, cableSchema, isReading, isTrial } from '../plan/cable'
import type { Plan } from '../plan/plan'
import { parseLength } from '../quantity/length'
import type { Parsed } from '../quantity/parsed'
import { CONSTRUCTIONS } from '../standards/grades'
import { parseEnd } from './end-text'
import { parseMark, parsePowerMark, powerMarkOf } from './mark-text'

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
  'one way',
  'supplied with',
  'kind',
  'standing',
  'note',
] as const
export type CableColumn = (typeof CABLE_COLUMNS)[number]
export const NEEDED_COLUMNS: readonly CableColumn[] = ['tag', 'first end', 'second end', 'length']

/** Which column of the file holds what: the position of each, from 0; left out where the file has none. */
export type Mapping = { [Column in CableColumn]?: number }

/** Words that headers use, beside the columns' own names. */
const headerWords: Record<CableColumn, readonly string[]> = {
  tag: ['id', 'label', 'number', 'no', 'cable', 'asset'],
  'first end': ['end 1', 'end a', 'from', 'host end', 'connector 1', 'connector a', 'plug 1', 'side a'],
  'second end': ['end 2', 'end b', 'to', 'device end', 'connector 2', 'connector b', 'plug 2', 'side b'],
  length: ['length m', 'length (m)', 'len', 'metres', 'meters', 'length ft', 'length (ft)', 'feet'],
  mark: ['rate', 'speed', 'grade', 'type', 'version', 'printed', 'gb/s'],
  power: ['watts', 'w', 'amps', 'current', 'charging', 'pd'],
  construction: ['active/passive', 'build', 'active'],
  thickness: ['diameter', 'mm', 'thickness mm', 'thickness (mm)'],
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

/** Which column holds what, as far as the headers tell: own names first, then the words people use; no column is taken twice. */
export function guessMapping(headers: readonly string[]): Mapping {
  const names = headers.map(plain)
  const mapping: Mapping = {}
  const taken = new Set<number>()
  const take = (column: CableColumn, at: number): void => {
    if (at < 0 || taken.has(at) || mapping[column] !== undefined) return
    mapping[column] = at
    taken.add(at)
  }
  for (const column of CABLE_COLUMNS) take(column, names.indexOf(column))
  for (const column of CABLE_COLUMNS) for (const word of headerWords[column]) take(column, names.indexOf(word))
  return mapping
}

/** A header that names feet says what bare figures below it are in. */
export const bareUnit = (header: string | undefined): 'm' | 'ft' => (/\b(ft|feet)\b/i.test(header ?? '') ? 'ft' : 'm')

export type BadRow = { line: number; cells: readonly string[]; problems: string[] }
export type ReadTable = { good: { line: number; cable: Cable }[]; bad: BadRow[] }

/** What a table of cables is read against. */
export type TableContext = {
  plan: Pick<Plan, 'cables' | 'devices' | 'kinds'>
  /** The day the marks were read. */
  today: string
  idOf: (tag: string) => string
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
  const taken = new Map(context.plan.cables.map((cable) => [cable.tag.toLowerCase(), 'the site']))
  const names = namesOf(context.plan)
  const unit = bareUnit(mapping.length === undefined ? undefined : headers[mapping.length])
  const good: ReadTable['good'] = []
  const bad: BadRow[] = []
  for (const [at, cells] of rows.entries()) {
    const line = at + 2
    const problems: string[] = []
    const cell = (column: CableColumn): string => cells[mapping[column] ?? -1]?.trim() ?? ''
    const cable = cableFrom(cell, unit, names, context, problems)
    const owner = taken.get(cell('tag').toLowerCase())
    if (cell('tag') !== '' && owner)
      problems.push(`tag: "${cell('tag').slice(0, 24)}" is already on a cable of ${owner}`)
    if (cable && problems.length === 0) {
      good.push({ line, cable })
      taken.set(cable.tag.toLowerCase(), `line ${line}`)
    } else bad.push({ line, cells, problems })
  }
  return { good, bad }
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
): Cable | null {
  for (const column of NEEDED_COLUMNS) if (cell(column) === '') problems.push(`${column}: it is missing`)
  const read = <T>(column: CableColumn, parse: (text: string) => Parsed<T>): T | undefined => {
    const text = cell(column)
    if (text === '') return undefined
    const answer = parse(text)
    if (answer.ok) return answer.value
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
  const mark = read('mark', parseMark)
  const power = read('power', parsePowerMark)
  const construction = oneOf('construction', CONSTRUCTIONS)
  const oneWay = oneOf('one way', ['yes', 'no', 'both', 'one', 'true', 'false', 'x'])
  const standing = oneOf('standing', CABLE_STANDINGS)
  const suppliedWith = named('supplied with', names.devices, 'device')
  const kind = named('kind', names.kinds, 'cable kind')
  const thickness =
    cell('thickness') === ''
      ? undefined
      : Number(
          cell('thickness')
            .replace(',', '.')
            .replace(/\s*mm$/i, ''),
        )
  if (problems.length > 0 || !first || !second || length === undefined) return null
  const claimed = mark !== undefined || power !== undefined
  const input: z.input<typeof cableSchema> = {
    id: context.idOf(cell('tag')),
    tag: cell('tag'),
    kind,
    ends: [first, second],
    length,
    construction,
    thickness,
    oneWay: ['yes', 'one', 'true', 'x'].includes(oneWay ?? ''),
    suppliedWith,
    standing,
    evidence: claimed
      ? [
          {
            basis: 'claimed',
            on: context.today,
            grade: mark,
            amps: power?.amps,
            volts: power?.volts === 50 ? 50 : undefined,
          },
        ]
      : [],
    note: cell('note') || undefined,
  }
  const checked = cableSchema.safeParse(input)
  if (checked.success) return checked.data
  for (const issue of checked.error.issues) problems.push(`${String(issue.path[0] ?? 'row')}: ${issue.message}`)
  return null
}

/** Cables as a table again: what `readCableTable` reads back, for spreadsheets. */
export function cableTable(plan: Plan, cables: readonly Cable[], mark: (cable: Cable) => string): string[][] {
  const deviceName = (id: string | undefined): string => plan.devices.find((device) => device.id === id)?.name ?? ''
  const kindName = (id: string | undefined): string => plan.kinds.find((kind) => kind.id === id)?.name ?? ''
  const end = ({ connector, gender }: Cable['ends'][0]): string =>
    gender === 'socket' ? `${connector} socket` : connector
  return [
    [...CABLE_COLUMNS],
    ...cables.map((cable) => {
      const claims = cable.evidence.filter((piece) => !isTrial(piece) && !isReading(piece))
      const claim = claims.findLast(({ amps }) => amps !== undefined)
      return [
        cable.tag,
        end(cable.ends[0]),
        end(cable.ends[1]),
        `${cable.length} m`,
        mark(cable),
        powerMarkOf(claim ?? {}) ?? '',
        cable.construction,
        cable.thickness === undefined ? '' : `${cable.thickness} mm`,
        cable.oneWay ? 'yes' : 'no',
        deviceName(cable.suppliedWith),
        kindName(cable.kind),
        cable.standing,
        cable.note ?? '',
      ]
    }),
  ]
}
