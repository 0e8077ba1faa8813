import type { Socket } from 'node:net'
import knex, { type Knex } from 'knex'
import { log } from '../log'

/** Set by the start command, or by whoever runs Hallway on a server of their own. */
export const DATABASE_URL_VARIABLE = 'HALLWAY_DATABASE_URL'

/** One pool a process, also across hot reloads and between the command and the built application. */
const shared = globalThis as typeof globalThis & { hallwayDatabase?: Knex }

export function database(): Knex {
  shared.hallwayDatabase ??= connect(databaseUrl())
  return shared.hallwayDatabase
}

export async function closeDatabase(): Promise<void> {
  await shared.hallwayDatabase?.destroy()
  shared.hallwayDatabase = undefined
}

function databaseUrl(): string {
  const url = process.env[DATABASE_URL_VARIABLE]
  if (!url) throw new Error(`${DATABASE_URL_VARIABLE} is not set; start Hallway with ./hallway start`)
  return url
}

/** A database that says nothing for so long while it is asked something is away, as one that is dead. No page asks what takes longer. */
const PATIENCE_MS = 6000
/** What changes the layout, or all of it, may keep it busy for longer. */
export const LONG_PATIENCE_MS = 600_000

export function connect(url: string, patienceMs = PATIENCE_MS): Knex {
  const { hostname, port, username, password, pathname } = new URL(url)
  return knex({
    client: 'mysql2',
    connection: {
      host: hostname,
      port: port ? Number(port) : 3306,
      user: decodeURIComponent(username),
      password: decodeURIComponent(password),
      database: decodeURIComponent(pathname.slice(1)),
      charset: 'utf8mb4',
      timezone: 'Z',
      decimalNumbers: true,
      supportBigNumbers: true,
      dateStrings: true,
      connectTimeout: 3000,
    },
    pool: {
      min: 0,
      max: 8,
      afterCreate(connection: Asked, done: (error: Error | null, connection: Asked) => void) {
        const { stream } = connection
        stream.setTimeout(patienceMs, () => {
          // one that waits to be asked is only idle
          if (connection._command) stream.destroy(silent())
        })
        connection.query(`SET SESSION innodb_lock_wait_timeout = ${LOCK_WAIT_SECONDS}`, (error) =>
          done(error, connection),
        )
      },
    },
    acquireConnectionTimeout: 5000,
    log: { warn: note, error: note, deprecate: note, debug: () => {} },
  })
}

/** Whoever waits for another's turn longer than this tries again: shorter than the patience, so that waiting is not taken for silence. */
const LOCK_WAIT_SECONDS = 3

/** What of a connection tells whether it waits for an answer. */
type Asked = {
  stream: Socket
  _command: unknown
  query(sql: string, done: (error: Error | null) => void): void
}

const silent = (): Error => Object.assign(new Error('the database says nothing'), { code: 'ETIMEDOUT' })

/** What the query builder has to say goes where all logs go. */
function note(message: unknown): void {
  log.warn(typeof message === 'string' ? message.split('\n')[0] : 'a note of the query builder')
}

const AWAY = new Set([
  'ECONNREFUSED',
  'ECONNRESET',
  'EPIPE',
  'ENOTFOUND',
  'ETIMEDOUT',
  'PROTOCOL_CONNECTION_LOST',
  'ER_SERVER_SHUTDOWN',
  'ER_CON_COUNT_ERROR',
  // a node of a cluster that is no part of the majority, or not in yet, refuses whatever it is asked
  'ER_UNKNOWN_COM_ERROR',
  // it was left out, or is being stopped, while something was written: whether that went through is for the others to say
  'ER_ERROR_DURING_COMMIT',
  'ER_QUERY_INTERRUPTED',
  'ER_CONNECTION_KILLED',
  'ER_NORMAL_SHUTDOWN',
])

/** True where an error means that the database could not be reached. */
export function isDatabaseAway(error: unknown): boolean {
  if (!(error instanceof Error)) return false
  const code = 'code' in error ? String(error.code) : ''
  return AWAY.has(code) || error.name === 'KnexTimeoutError' || /closed state|Connection lost/.test(error.message)
}

/** True where writers came between each other (deadlock, or refused by the other nodes of a cluster) or waited too long: the whole may be tried again. */
export const isLockTrouble = (error: unknown): boolean =>
  error instanceof Error && 'errno' in error && (error.errno === 1213 || error.errno === 1205)

/** True where a row was refused because its key is already taken. */
export const isDuplicate = (error: unknown): boolean =>
  error instanceof Error && 'code' in error && error.code === 'ER_DUP_ENTRY'
