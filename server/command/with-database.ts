import type { Knex } from 'knex'
import { connect, DATABASE_URL_VARIABLE, LONG_PATIENCE_MS } from '../database/connection'
import { migrate } from '../database/migrate'
import { startPrivateDatabase } from '../private-database/private-database'
import { home } from './home'
import { readRunning } from './running'

/** Runs something on the site database: the one given by address, the one already running, or a private one for as long as it takes. */
export async function withDatabase<T>(work: (knex: Knex) => Promise<T>): Promise<T> {
  const say = (line: string) => console.error(line)
  const given = process.env[DATABASE_URL_VARIABLE] ?? readRunning(undefined)?.databaseUrl
  const own = given ? null : await startPrivateDatabase({ home, say })
  const knex = connect(given ?? own?.url ?? '', { patienceMs: LONG_PATIENCE_MS })
  try {
    await migrate(knex)
    return await work(knex)
  } finally {
    await knex.destroy()
    await own?.stop()
  }
}
