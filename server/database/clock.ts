import type { Knex } from 'knex'

/** The time by the clock of the database, in milliseconds: the same for every process that asks it, and for what is kept there. */
export async function databaseNow(knex: Knex): Promise<number> {
  const [[row]] = await knex.raw('SELECT ROUND(UNIX_TIMESTAMP(NOW(3)) * 1000) AS now')
  return Number(row.now)
}
