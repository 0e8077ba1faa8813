import type { Socket } from 'node:net'
import { isMainThread } from 'node:worker_threads'
import knex, { type Knex } from 'knex'
import Mysql2 from 'knex/lib/dialects/mysql2/index.js'
import { log } from '../log'
import { giveBack, inTime, outOfTime, timeLeft } from './deadline'

/** Set by the start command, or by whoever runs Hallway on a server of their own. */
export const DATABASE_URL_VARIABLE = 'HALLWAY_DATABASE_URL'

/** One pool a process, also across hot reloads and between the command and the built application. */
const shared = globalThis as typeof globalThis & { hallwayDatabase?: Knex }

export function database(): Knex {
  // what reads whole files on a thread of its own between two questions holds only what it makes itself
  shared.hallwayDatabase ??= connect(databaseUrl(), isMainThread ? { idleSeconds: IDLE_SECONDS } : {})
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

const TAKE_BACK_MS = 400
/** A question that is answered within so long is answered at once. */
const PROMPT_MS = 500

type Question = string | { sql: string }
const sqlOf = (question: Question): string => (typeof question === 'string' ? question : question.sql)

/** A connection is waited for, and a question answered, no longer than whoever asks has time. */
class InTime extends Mysql2 {
  override acquireConnection(): Promise<PooledConnection> {
    return inTime(super.acquireConnection(), (connection) => void this.releaseConnection(connection))
  }

  override _query(connection: PooledConnection, question: Question): Promise<unknown> {
    // what was refused because the time was over is taken back all the same
    const left = sqlOf(question).startsWith('ROLLBACK') ? Math.max(TAKE_BACK_MS, timeLeft()) : timeLeft()
    if (left === Number.POSITIVE_INFINITY) return super._query(connection, question)
    // a question that is given up leaves its connection where it is in the middle of something: it ends with it
    const over = setTimeout(() => connection.stream.destroy(outOfTime()), Math.max(0, left))
    const began = performance.now()
    return super._query(connection, question).finally(() => {
      clearTimeout(over)
      // what is answered at once is no waiting: a large save is many such questions
      const took = performance.now() - began
      if (took < PROMPT_MS) giveBack(took)
    })
  }
}

/** How long a silent database is waited for, and after how long the database ends a transaction in which nothing is asked. */
type Patience = { patienceMs?: number; idleSeconds?: number }

export function connect(
  url: string,
  { patienceMs = PATIENCE_MS, idleSeconds = LONG_IDLE_SECONDS }: Patience = {},
): Knex {
  const { hostname, port, username, password, pathname } = new URL(url)
  return knex({
    client: InTime,
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
      connectTimeout: within(3000, patienceMs / 2, 10_000),
    },
    pool: {
      min: 0,
      max: 8,
      afterCreate(connection: PooledConnection, done: (error: Error | null, connection: PooledConnection) => void) {
        const { stream } = connection
        stream.setTimeout(patienceMs)
        // each time anew: a callback given to setTimeout hears of the first silence only, which may be an idle one
        stream.on('timeout', () => {
          // one that waits to be asked is only idle
          if (connection._command) stream.destroy(silent())
        })
        connection.query(
          `SET SESSION time_zone = '+00:00', innodb_lock_wait_timeout = ${LOCK_WAIT_SECONDS}, idle_transaction_timeout = ${idleSeconds}`,
          (error) => done(error, connection),
        )
      },
    },
    acquireConnectionTimeout: within(5000, patienceMs - 1000, 20_000),
    log: { warn: note, error: note, deprecate: note, debug: () => {} },
  })
}

const within = (least: number, wanted: number, most: number): number => Math.min(most, Math.max(least, wanted))

/** Whoever waits for another's turn longer than this tries again: shorter than the patience, so that waiting is not taken for silence. */
const LOCK_WAIT_SECONDS = 3
/** A save in which nothing is asked for so long is ended by the database: a web process that hangs holds up nobody else's saves for longer than they have patience. */
export const IDLE_SECONDS = 4
/** The same for what may read large files between two questions. */
const LONG_IDLE_SECONDS = 600

/** What of a connection tells whether it waits for an answer. */
export type PooledConnection = {
  stream: Socket
  _command: unknown
  query(sql: string, done: (error: Error | null) => void): void
}

const silent = (): Error => Object.assign(new Error('the database says nothing'), { code: 'ETIMEDOUT' })

/** What the query builder has to say goes where all logs go. */
function note(message: unknown): void {
  log.warn(typeof message === 'string' ? message.split('\n')[0] : 'a note of the query builder')
}

const BUSY = 'ROWS_HELD'

/** Others do not let go of what is needed. Nothing was written. */
export const busy = (cause: unknown): Error =>
  Object.assign(new Error('others hold what is needed and do not let go of it', { cause }), { code: BUSY })

/** True where what is needed was held by somebody else until the time was over. */
export const isBusy = (error: unknown): boolean => error instanceof Error && 'code' in error && error.code === BUSY

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
  BUSY,
])

/** True where an error means that the database could not be reached, or did not come to it in time. */
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
