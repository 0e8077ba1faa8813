import type { AddressInfo } from 'node:net'
import { connect as connectSocket, createServer, type Server, type Socket } from 'node:net'
import mysql from 'mysql2/promise'
import { afterEach, describe, expect, inject, it } from 'vitest'
import { freshSites, HAND } from '../../tests/support/demo-site'
import { PATIENT } from '../../tests/support/patient'
import { connect, isDatabaseAway } from '../database/connection'
import { changeSite } from './change-site'

const { now, stored } = freshSites()

/** What a line that breaks does with the next COMMIT: lets it reach the database and loses the answer, or loses it on the way. */
type Fault = 'lose the answer' | 'lose the question'
const closing: (() => Promise<unknown>)[] = []
afterEach(async () => {
  for (const close of closing.splice(0)) await close()
})

/** A database behind a line that breaks once, in a commit, and stays broken for a while where that is asked. */
async function behindBadLine(fault: Fault, awayMs = 0) {
  const { hostname, port } = new URL(inject('databaseUrl'))
  let armed = true
  let awayUntil = 0
  const sockets = new Set<Socket>()
  const proxy: Server = createServer((client) => {
    if (Date.now() < awayUntil) return client.destroy()
    const server = connectSocket(Number(port), hostname)
    sockets.add(client).add(server)
    const cut = () => {
      client.destroy()
      server.destroy()
    }
    client.on('data', (data) => {
      if (armed && data.includes('COMMIT')) {
        armed = false
        awayUntil = Date.now() + awayMs
        if (fault === 'lose the answer') server.write(data)
        server.removeAllListeners('data')
        setTimeout(cut, 60)
        return
      }
      server.write(data)
    })
    server.on('data', (data) => client.write(data))
    for (const socket of [client, server]) socket.on('error', cut).on('close', cut)
  })
  await new Promise<void>((opened) => proxy.listen(0, '127.0.0.1', opened))
  const url = new URL(inject('databaseUrl'))
  url.port = String((proxy.address() as AddressInfo).port)
  const knex = connect(url.href, PATIENT)
  closing.push(async () => {
    await knex.destroy()
    for (const socket of sockets) socket.destroy()
    proxy.close()
  })
  return knex
}

const note = (knex: ReturnType<typeof connect>, text: string, id: string) =>
  changeSite(knex, now.site, { ...HAND, id }, ({ plan, place }) => ({
    what: { name: 'change run', about: ['R-01', 'the note'] },
    edits: plan.runs
      .slice(0, 1)
      .map((run) => ({ list: 'runs', id: run.id, base: place, value: { ...run, note: text } })),
  }))
const written = async () => (await stored()).plan.runs[0]?.note

describe('a connection lost in a commit', () => {
  it('is answered by looking the change up: what was saved is said to be saved', async () => {
    const knex = await behindBadLine('lose the answer')
    expect(await note(knex, 'kept', 'lost-answer-1')).toMatchObject({ outcome: 'saved', place: 2 })
    expect(await written()).toBe('kept')
  })
  it('also where the database stays away for a moment', async () => {
    const knex = await behindBadLine('lose the answer', 900)
    expect(await note(knex, 'kept too', 'lost-answer-2')).toMatchObject({ outcome: 'saved' })
  })
  it('before the database heard of it is told as not saved, and sent again it is saved once', async () => {
    const knex = await behindBadLine('lose the question')
    await expect(note(knex, 'late', 'lost-question').catch((error) => isDatabaseAway(error))).resolves.toBe(true)
    expect(await written()).not.toBe('late')
    expect(await note(knex, 'late', 'lost-question')).toMatchObject({ outcome: 'saved', place: 2 })
    expect(await note(knex, 'late', 'lost-question')).toMatchObject({ outcome: 'saved', place: 2 })
  })
})

describe('writers of other programs', () => {
  it('that hold a site for longer than the database waits are waited for again', async () => {
    const root = await mysql.createConnection({ socketPath: inject('databaseSocket'), user: 'root' })
    const [[before]] = await root.query<mysql.RowDataPacket[]>('SELECT @@GLOBAL.innodb_lock_wait_timeout AS seconds')
    await root.query('SET GLOBAL innodb_lock_wait_timeout = 1')
    const knex = connect(inject('databaseUrl'), PATIENT)
    closing.push(() => knex.destroy())
    const holding = await knex.transaction()
    await holding('sites').where({ id: now.site }).forUpdate().first('id')
    const saving = note(connectFresh(), 'patient', 'patient-writer')
    setTimeout(() => void holding.rollback(), 1500)
    expect(await saving).toMatchObject({ outcome: 'saved' })
    await root.query('SET GLOBAL innodb_lock_wait_timeout = ?', [before?.seconds])
    await root.end()
  })
})

/** A pool opened after the timeout was set, which it takes over for its connections. */
function connectFresh() {
  const knex = connect(inject('databaseUrl'), PATIENT)
  closing.push(() => knex.destroy())
  return knex
}
