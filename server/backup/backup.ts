import { createHash, randomUUID } from 'node:crypto'
import { createReadStream, createWriteStream } from 'node:fs'
import { rename, rm, stat } from 'node:fs/promises'
import { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { constants, createGunzip, createGzip } from 'node:zlib'
import type { Knex } from 'knex'
import { z } from 'zod'
import { readPlan } from '../../core/plan/read'
import { nameField } from '../../core/vocabulary/fields'
import { isDatabaseAway } from '../database/connection'
import { markOlder } from '../database/migrations/0004-kept'
import { Failure, isDiskFull } from '../failure'
import { isKeptPassword } from '../people/passwords'
import { readCopy, siteRow } from '../sites/entity-rows'

/**
 * A backup is a gzip of lines of JSON: a head, a line for every row of every table that holds sites, and a foot with how many there were and the SHA-256
 * of all lines before it.
 */
const FORMAT = 'hallway-backup'
const VERSION = 1
/** In the order in which they refer to each other. */
const TABLES = [
  'sites',
  'entities',
  'changes',
  'edits',
  'files',
  'series',
  'series_chunks',
  'documents',
  'document_parts',
  // sessions, links and tokens are not kept: after a restore they are made anew
  'people',
  'person_logins',
  'person_passkeys',
  'site_rights',
] as const
type Table = (typeof TABLES)[number]
/** JSON columns, which the database hands out read and takes in written. */
const JSON_COLUMNS: Partial<Record<Table, readonly string[]>> = {
  entities: ['body'],
  changes: ['about', 'along'],
  edits: ['value', 'was'],
  series: ['latest'],
  series_chunks: ['brief'],
}
/** Columns of bytes, which a line holds as base64. */
const BYTE_COLUMNS: Partial<Record<Table, readonly string[]>> = {
  files: ['bytes'],
  series_chunks: ['bytes'],
  document_parts: ['bytes'],
}

type Row = Record<string, unknown>
type Counts = Record<Table, number>
/** Columns that an earlier Hallway kept, and nobody asks for any more. */
const GONE_COLUMNS: Partial<Record<Table, readonly string[]>> = { person_passkeys: ['asked'] }

const noRows = (): Counts => Object.fromEntries(TABLES.map((table) => [table, 0])) as Counts

/** How far it is, in words and whole percent. */
export type Progress = (doing: string, percent: number) => void

/** Tells each percent once. */
function percentOf(whole: number, doing: string, progress: Progress): (more: number) => void {
  let done = 0
  let told = -1
  return (more) => {
    done += more
    const percent = Math.min(100, Math.floor((100 * done) / Math.max(1, whole)))
    if (percent > told) progress(doing, percent)
    told = Math.max(told, percent)
  }
}

const nobodyAsks: Progress = () => {}

/** Writes all sites with their logs, as they stand at one moment, while Hallway runs. The file is read again before it gets its name. */
export async function backUp(
  knex: Knex,
  file: string,
  { at = new Date(), progress = nobodyAsks }: { at?: Date; progress?: Progress } = {},
): Promise<Counts> {
  const part = `${file}.part`
  try {
    const counts = await knex.transaction(
      async (trx) => {
        const written = noRows()
        const row = percentOf(await rowsIn(trx), 'written', progress)
        await pipeline(
          // few at once, as a line may be large
          Readable.from(linesOf(trx, written, at, row), { highWaterMark: 1 }),
          createGzip({ level: constants.Z_BEST_SPEED }),
          createWriteStream(part, { mode: 0o600 }),
        )
        return written
      },
      { isolationLevel: 'repeatable read' },
    )
    await readWhole(part, progress)
    await rename(part, file)
    return counts
  } catch (error) {
    await rm(part, { force: true })
    if (isDiskFull(error))
      throw new Failure(
        `There is not enough room for ${file}. What was written of it is gone again; no site was changed.`,
      )
    throw error
  }
}

async function rowsIn(trx: Knex.Transaction): Promise<number> {
  let rows = 0
  for (const table of TABLES) rows += Number((await trx(table).count({ all: '*' }))[0]?.all ?? 0)
  return rows
}

async function* linesOf(
  trx: Knex.Transaction,
  counts: Counts,
  at: Date,
  told: (rows: number) => void,
): AsyncIterable<string> {
  const hash = createHash('sha256')
  const hashed = (text: string): string => {
    hash.update(text)
    return text
  }
  yield hashed(`${JSON.stringify({ format: FORMAT, version: VERSION, at: at.toISOString() })}\n`)
  for (const table of TABLES) {
    for await (const row of rowsOf(trx, table)) {
      counts[table] += 1
      told(1)
      for (const piece of piecesOf(table, row)) yield hashed(piece)
    }
  }
  yield `${JSON.stringify({ end: true, counts, sha256: hash.digest('hex') })}\n`
}

/** The rows of a table as they come; files one by one, as sixteen of them at once are more than a process should hold. */
async function* rowsOf(trx: Knex.Transaction, table: Table): AsyncIterable<Row> {
  if (table !== 'files') {
    yield* trx(table).select('*').stream() as AsyncIterable<Row>
    return
  }
  const keys: { site_id: string; id: string }[] = await trx('files').select('site_id', 'id')
  for (const key of keys) yield await trx('files').where(key).first()
}

/** No row is longer: a file of the largest size, written out, and what stands beside it. */
const LONGEST_LINE = 64_000_000

/** The lines of a gzip, each put together once, however many pieces it came in. */
async function* linesIn(file: string, read: (bytes: number) => void = () => {}): AsyncIterable<string> {
  const source = createReadStream(file)
  source.on('data', (piece) => read(piece.length))
  const gunzip = createGunzip().setEncoding('utf8')
  source.on('error', (error) => gunzip.destroy(error)).pipe(gunzip)
  let pieces: string[] = []
  let length = 0
  for await (const chunk of gunzip as AsyncIterable<string>) {
    let from = 0
    for (let end = chunk.indexOf('\n'); end >= 0; end = chunk.indexOf('\n', from)) {
      pieces.push(chunk.slice(from, end))
      yield pieces.join('')
      pieces = []
      length = 0
      from = end + 1
    }
    if (from === chunk.length) continue
    pieces.push(chunk.slice(from))
    length += chunk.length - from
    if (length > LONGEST_LINE) throw new Failure(`${file} is not a backup of Hallway: a line of it has no end.`)
  }
  if (length > 0) yield pieces.join('')
}

/** What a line may be. What the columns of a row may hold is for the database and the reader of plans. */
const lineSchema = z.union([
  z.object({ table: z.enum(TABLES), row: z.record(z.string().regex(/^[a-z_]{1,40}$/), z.unknown()) }),
  z.object({ end: z.literal(true), counts: z.partialRecord(z.enum(TABLES), z.number()), sha256: z.string() }),
  z.object({ format: z.string(), version: z.number() }),
])

type Line = { table: Table; row: Row; letters: number }

/** The rows of a backup. Throws where the file is none, is cut short, or is not what was written. */
async function* readLines(file: string, read?: (bytes: number) => void): AsyncIterable<Line> {
  const hash = createHash('sha256')
  const counts = noRows()
  let ended = false
  let first = true
  for await (const line of linesIn(file, read)) {
    const said = lineSchema.safeParse(JSON.parse(line))
    if (!said.success)
      throw new Failure(
        first ? `${file} is not a backup of Hallway.` : `${file} holds something this Hallway does not know.`,
      )
    const value = said.data
    if (first) {
      if (!('format' in value) || value.format !== FORMAT) throw new Failure(`${file} is not a backup of Hallway.`)
      if (value.version !== VERSION)
        throw new Failure(`${file} is a backup of version ${value.version}; this Hallway reads version ${VERSION}.`)
      first = false
    }
    if (ended) throw new Failure(`${file} is damaged: it goes on behind its end.`)
    if ('end' in value) {
      ended = true
      if (value.sha256 !== hash.digest('hex')) throw new Failure(`${file} is damaged: its sum does not fit.`)
      // a backup of before there were files counts none
      for (const table of TABLES)
        if ((value.counts[table] ?? 0) !== counts[table])
          throw new Failure(`${file} is damaged: rows of ${table} are missing.`)
      continue
    }
    hash.update(line).update('\n')
    if (!('table' in value)) continue
    counts[value.table] += 1
    yield { ...value, letters: line.length }
  }
  if (!ended) throw new Failure(`${file} is cut short; it is not a whole backup.`)
}

/** Reads a backup to its end; what is wrong with it is thrown on the way. */
async function readWhole(file: string, progress: Progress): Promise<void> {
  const read = percentOf((await stat(file)).size, 'read again', progress)
  for await (const _ of readLines(file, read)) {
    // each line is checked as it is read
  }
}

const ROWS_AT_ONCE = 200
/** A file may fill what the database takes at once by itself, and so may a few large rows. */
const LETTERS_AT_ONCE = 2_000_000

/**
 * Brings the sites of a backup into an empty database, with their logs, in one transaction. Each site gets a new identity, so that no copy that was made
 * of it before is taken for it; and each is read as a plan file would be before anything is kept.
 */
export async function restore(knex: Knex, file: string, progress: Progress = nobodyAsks): Promise<{ sites: string[] }> {
  const known = await knex('sites').first('id')
  if (known)
    throw new Failure(
      'This database holds sites already, and nothing of it was changed. Restore into an empty one: HALLWAY_DATABASE_URL may name another, or move .hallway/database away.',
    )
  try {
    // whole and sound, before anything of it comes in
    await readWhole(file, progress)
    const read = percentOf((await stat(file)).size, 'brought in', progress)
    return await knex.transaction(async (trx) => {
      let table: Table | null = null
      let rows: Row[] = []
      let letters = 0
      const send = async () => {
        if (table && rows.length > 0) await trx(table).insert(rows)
        rows = []
        letters = 0
      }
      for await (const line of readLines(file, read)) {
        if (line.table !== table || rows.length >= ROWS_AT_ONCE || letters > LETTERS_AT_ONCE) await send()
        table = line.table
        rows.push(asWritten(line.table, line.row))
        letters += line.letters
      }
      await send()
      await markOlder(trx)
      const sites: { id: string; name: string }[] = await trx('sites').select('id', 'name')
      for (const { id, name } of sites) await check(trx, id, name)
      return { sites: sites.map(({ name }) => name) }
    })
  } catch (error) {
    if (error instanceof Failure) throw error
    const code = error instanceof Error && 'code' in error ? String(error.code) : ''
    if (code === 'ENOENT') throw new Failure(`There is no file ${file}.`)
    if (code.startsWith('Z_') || error instanceof SyntaxError)
      throw new Failure(`${file} is not a whole backup of Hallway. Nothing was restored.`)
    if (isDiskFull(error)) throw new Failure('The disk that keeps the sites is full. Nothing was restored.')
    if (code.startsWith('ER_') && !isDatabaseAway(error))
      throw new Failure(
        `${file} holds rows that the database does not take, or that do not fit together. Nothing was restored.`,
      )
    throw error
  }
}

/** Bytes of a file in one piece of its line: a multiple of three, so that the pieces of base64 join. */
const PIECE = 300_000

/** A row as a line of JSON, in pieces: the bytes of a file are written out a few at a time, behind its other columns. */
function* piecesOf(table: Table, row: Row): Iterable<string> {
  const [column] = BYTE_COLUMNS[table] ?? []
  if (column === undefined) {
    yield `${JSON.stringify({ table, row })}\n`
    return
  }
  const { [column]: bytes, ...rest } = row
  const open = JSON.stringify({ table, row: { ...rest, [column]: '' } })
  yield open.slice(0, -'"}}'.length)
  const whole = bytes as Buffer
  for (let at = 0; at < whole.length; at += PIECE)
    yield whole.toString('base64', at, Math.min(whole.length, at + PIECE))
  yield '"}}\n'
}

function asWritten(table: Table, row: Row): Row {
  const written = { ...row }
  for (const column of GONE_COLUMNS[table] ?? []) delete written[column]
  for (const column of JSON_COLUMNS[table] ?? [])
    written[column] = written[column] === null ? null : JSON.stringify(written[column])
  for (const column of BYTE_COLUMNS[table] ?? []) written[column] = Buffer.from(String(written[column]), 'base64')
  if (table === 'sites') written.identity = randomUUID()
  if (table === 'people' && !isPerson(row))
    throw new Failure(
      `This backup has an account whose name or password cannot be read: ${String(row.name).slice(0, 120)}. Nothing was restored.`,
    )
  return written
}

/** A name, and a password as it is kept here or none: what opens an account is not taken on trust. */
const isPerson = ({ name, password }: Row): boolean =>
  nameField.safeParse(name).success && (password === null || isKeptPassword(password))

async function check(trx: Knex.Transaction, id: string, name: string): Promise<void> {
  const row = await siteRow(trx, id)
  const read = row && readPlan((await readCopy(trx, row)).plan)
  if (!read?.ok)
    throw new Failure(
      `The site ${name} in this backup is not a whole plan: ${read?.faults[0]?.reason ?? 'it is missing'}. Nothing was restored.`,
    )
}
