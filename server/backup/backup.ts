import { createHash, randomUUID } from 'node:crypto'
import { createReadStream, createWriteStream } from 'node:fs'
import { rename, rm } from 'node:fs/promises'
import { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { createGunzip, createGzip } from 'node:zlib'
import type { Knex } from 'knex'
import { readPlan } from '../../core/plan/read'
import { Failure } from '../failure'
import { readCopy, siteRow } from '../sites/entity-rows'

/**
 * A backup is a gzip of lines of JSON: a head, a line for every row of every table that holds sites, and a foot with how many there were and the SHA-256
 * of all lines before it.
 */
const FORMAT = 'hallway-backup'
const VERSION = 1
/** In the order in which they refer to each other. */
const TABLES = ['sites', 'entities', 'changes', 'edits', 'files'] as const
type Table = (typeof TABLES)[number]
/** JSON columns, which the database hands out read and takes in written. */
const JSON_COLUMNS: Partial<Record<Table, readonly string[]>> = {
  entities: ['body'],
  changes: ['about'],
  edits: ['value', 'was'],
}
/** Columns of bytes, which a line holds as base64. */
const BYTE_COLUMNS: Partial<Record<Table, readonly string[]>> = { files: ['bytes'] }

type Row = Record<string, unknown>
type Counts = Record<Table, number>
const noRows = (): Counts => ({ sites: 0, entities: 0, changes: 0, edits: 0, files: 0 })

/** Writes all sites with their logs, as they stand at one moment, while Hallway runs. The file is read again before it gets its name. */
export async function backUp(knex: Knex, file: string, at = new Date()): Promise<Counts> {
  const part = `${file}.part`
  try {
    const counts = await knex.transaction(
      async (trx) => {
        const written = noRows()
        await pipeline(Readable.from(linesOf(trx, written, at)), createGzip(), createWriteStream(part, { mode: 0o600 }))
        return written
      },
      { isolationLevel: 'repeatable read' },
    )
    await readWhole(part)
    await rename(part, file)
    return counts
  } catch (error) {
    await rm(part, { force: true })
    throw error
  }
}

async function* linesOf(trx: Knex.Transaction, counts: Counts, at: Date): AsyncIterable<string> {
  const hash = createHash('sha256')
  const line = (value: unknown): string => {
    const text = `${JSON.stringify(value)}\n`
    hash.update(text)
    return text
  }
  yield line({ format: FORMAT, version: VERSION, at: at.toISOString() })
  for (const table of TABLES) {
    for await (const row of trx(table).select('*').stream() as AsyncIterable<Row>) {
      counts[table] += 1
      yield line({ table, row: inWords(table, row) })
    }
  }
  yield `${JSON.stringify({ end: true, counts, sha256: hash.digest('hex') })}\n`
}

/** The lines of a gzip. */
async function* linesIn(file: string): AsyncIterable<string> {
  const gunzip = createGunzip().setEncoding('utf8')
  createReadStream(file)
    .on('error', (error) => gunzip.destroy(error))
    .pipe(gunzip)
  let rest = ''
  for await (const chunk of gunzip as AsyncIterable<string>) {
    const lines = `${rest}${chunk}`.split('\n')
    rest = lines.pop() ?? ''
    yield* lines
  }
  if (rest !== '') yield rest
}

/** The rows of a backup. Throws where the file is none, is cut short, or is not what was written. */
async function* readLines(file: string): AsyncIterable<{ table: Table; row: Row }> {
  const hash = createHash('sha256')
  const counts = noRows()
  let ended = false
  let first = true
  for await (const line of linesIn(file)) {
    const value = JSON.parse(line)
    if (first) {
      if (value.format !== FORMAT) throw new Failure(`${file} is not a backup of Hallway.`)
      if (value.version !== VERSION)
        throw new Failure(`${file} is a backup of version ${value.version}; this Hallway reads version ${VERSION}.`)
      first = false
    }
    if (value.end) {
      ended = true
      if (value.sha256 !== hash.digest('hex')) throw new Failure(`${file} is damaged: its sum does not fit.`)
      // a backup of before there were files counts none
      for (const table of TABLES)
        if ((value.counts[table] ?? 0) !== counts[table])
          throw new Failure(`${file} is damaged: rows of ${table} are missing.`)
      continue
    }
    hash.update(`${line}\n`)
    if (!value.table) continue
    if (!TABLES.includes(value.table)) throw new Failure(`${file} holds something this Hallway does not know.`)
    counts[value.table as Table] += 1
    yield value
  }
  if (!ended) throw new Failure(`${file} is cut short; it is not a whole backup.`)
}

/** Reads a backup to its end; what is wrong with it is thrown on the way. */
async function readWhole(file: string): Promise<void> {
  for await (const _ of readLines(file)) {
    // each line is checked as it is read
  }
}

const ROWS_AT_ONCE = 200
/** A file may fill what the database takes at once by itself. */
const FILES_AT_ONCE = 1

/**
 * Brings the sites of a backup into an empty database, with their logs, in one transaction. Each site gets a new identity, so that no copy that was made
 * of it before is taken for it; and each is read as a plan file would be before anything is kept.
 */
export async function restore(knex: Knex, file: string): Promise<{ sites: string[] }> {
  const known = await knex('sites').first('id')
  if (known)
    throw new Failure(
      'This database holds sites already, and nothing of it was changed. Restore into an empty one: HALLWAY_DATABASE_URL may name another, or move .hallway/database away.',
    )
  try {
    // whole and sound, before anything of it comes in
    await readWhole(file)
    return await knex.transaction(async (trx) => {
      let table: Table | null = null
      let rows: Row[] = []
      const send = async () => {
        if (table && rows.length > 0) await trx(table).insert(rows)
        rows = []
      }
      for await (const line of readLines(file)) {
        if (line.table !== table || rows.length >= (table === 'files' ? FILES_AT_ONCE : ROWS_AT_ONCE)) await send()
        table = line.table
        rows.push(asWritten(line.table, line.row))
      }
      await send()
      const sites: { id: string; name: string }[] = await trx('sites').select('id', 'name')
      for (const { id, name } of sites) await check(trx, id, name)
      return { sites: sites.map(({ name }) => name) }
    })
  } catch (error) {
    if (error instanceof Failure) throw error
    const code = error instanceof Error && 'code' in error ? String(error.code) : ''
    if (code === 'ENOENT') throw new Failure(`There is no file ${file}.`)
    if (code.startsWith('Z_') || error instanceof SyntaxError)
      throw new Failure(`${file} is not a whole backup of Hallway. Nothing was brought in.`)
    throw error
  }
}

/** A row as a line of JSON holds it. */
function inWords(table: Table, row: Row): Row {
  const said = { ...row }
  for (const column of BYTE_COLUMNS[table] ?? []) said[column] = (said[column] as Buffer).toString('base64')
  return said
}

function asWritten(table: Table, row: Row): Row {
  const written = { ...row }
  for (const column of JSON_COLUMNS[table] ?? [])
    written[column] = written[column] === null ? null : JSON.stringify(written[column])
  for (const column of BYTE_COLUMNS[table] ?? []) written[column] = Buffer.from(String(written[column]), 'base64')
  if (table === 'sites') written.identity = randomUUID()
  return written
}

async function check(trx: Knex.Transaction, id: string, name: string): Promise<void> {
  const row = await siteRow(trx, id)
  const read = row && readPlan((await readCopy(trx, row)).plan)
  if (!read?.ok)
    throw new Failure(
      `The site ${name} in this backup is not a whole plan: ${read?.faults[0]?.reason ?? 'it is missing'}. Nothing was brought in.`,
    )
}
