import { type AddressInfo, connect as connectSocket, createServer, type Socket } from 'node:net'
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest'
import { connect, isDatabaseAway } from './connection'

/** A line to the database on which answers stop coming at a word. */
const sockets = new Set<Socket>()
let silent = false
const line = createServer((client) => {
  const { hostname, port } = new URL(inject('databaseUrl'))
  const database = connectSocket(Number(port), hostname)
  for (const socket of [client, database]) sockets.add(socket.on('error', () => {}))
  client.pipe(database)
  database.on('data', (data) => {
    if (!silent) client.write(data)
  })
})
let url: URL
beforeAll(async () => {
  await new Promise<void>((opened) => line.listen(0, '127.0.0.1', opened))
  url = new URL(inject('databaseUrl'))
  url.port = String((line.address() as AddressInfo).port)
})
afterAll(() => {
  for (const socket of sockets) socket.destroy()
  line.close()
})

/** Longer than a busy machine needs to answer what is asked. */
const PATIENCE_MS = 2000

describe('a database that says nothing', () => {
  it('is away, as one that is dead is, and is asked again over another line', async () => {
    const knex = connect(url.href, { patienceMs: PATIENCE_MS })
    try {
      await knex.raw('SELECT 1')
      silent = true
      const error = await knex.raw('SELECT 1').then(
        () => null,
        (why) => why,
      )
      expect(isDatabaseAway(error)).toBe(true)
      silent = false
      expect((await knex.raw('SELECT 2 AS two'))[0]).toEqual([{ two: 2 }])
    } finally {
      await knex.destroy()
    }
  })
  it('while nobody asks it anything is only idle', async () => {
    const knex = connect(url.href, { patienceMs: PATIENCE_MS })
    try {
      await knex.transaction(async (trx) => {
        await trx.raw('SELECT 1')
        await new Promise((done) => setTimeout(done, PATIENCE_MS + 300))
        expect((await trx.raw('SELECT 2 AS two'))[0]).toEqual([{ two: 2 }])
      })
    } finally {
      await knex.destroy()
    }
  })
})
