import mysql from 'mysql2/promise'
import { inject } from 'vitest'
import { connect } from '../../server/database/connection'
import { PATIENT } from './patient'

let count = 0

type EmptyDatabase = { knex: ReturnType<typeof connect>; url: string; drop(): Promise<void> }

/** An empty database of its own on the server of the tests; further processes reach it by its URL. */
export async function makeEmptyDatabase(): Promise<EmptyDatabase> {
  count += 1
  const name = `hallway_empty_${process.pid}_${count}`
  const root = await mysql.createConnection({ socketPath: inject('databaseSocket'), user: 'root' })
  await root.query(`CREATE DATABASE \`${name}\` CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_520_ci`)
  const url = new URL(inject('databaseUrl'))
  await root.query(`GRANT ALL ON \`${name}\`.* TO ?@?`, [url.username, url.hostname])
  url.pathname = `/${name}`
  const knex = connect(url.href, PATIENT)
  return {
    knex,
    url: url.href,
    async drop() {
      await knex.destroy()
      await root.query(`DROP DATABASE \`${name}\``)
      await root.end()
    },
  }
}

/** The same for as long as the work takes. */
export async function withEmptyDatabase<T>(work: (knex: EmptyDatabase['knex'], url: string) => Promise<T>): Promise<T> {
  const { knex, url, drop } = await makeEmptyDatabase()
  try {
    return await work(knex, url)
  } finally {
    await drop()
  }
}
