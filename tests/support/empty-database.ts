import mysql from 'mysql2/promise'
import { inject } from 'vitest'
import { connect } from '../../server/database/connection'

let count = 0

/** An empty database of its own on the server of the tests, for as long as the work takes; further processes reach it by its URL. */
export async function withEmptyDatabase<T>(
  work: (knex: ReturnType<typeof connect>, url: string) => Promise<T>,
): Promise<T> {
  count += 1
  const name = `hallway_empty_${process.pid}_${count}`
  const root = await mysql.createConnection({ socketPath: inject('databaseSocket'), user: 'root' })
  await root.query(`CREATE DATABASE \`${name}\` CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_520_ci`)
  const url = new URL(inject('databaseUrl'))
  await root.query(`GRANT ALL ON \`${name}\`.* TO ?@?`, [url.username, url.hostname])
  url.pathname = `/${name}`
  const knex = connect(url.href)
  try {
    return await work(knex, url.href)
  } finally {
    await knex.destroy()
    await root.query(`DROP DATABASE \`${name}\``)
    await root.end()
  }
}
