import { mkdtempSync, rmSync } from 'node:fs'
import { createServer } from 'node:http'
import type { AddressInfo } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { pathToFileURL } from 'node:url'
import { gunzipSync } from 'node:zlib'
import { closeDatabase, connect, DATABASE_URL_VARIABLE, database } from '../database/connection'
import { migrate } from '../database/migrate'
import { startPrivateDatabase } from '../private-database/private-database'
import { changeSite } from '../sites/change-site'
import { currentCopy } from '../sites/copies'
import { importPlan } from '../sites/sites'
import { application } from '../web/application'
import { largeSite, noteOn } from './bench-change'
import { root } from './home'
import { median } from './timing'

const HAND = { by: 'the bench' }
const GOES = 40
/** Before a process is warm. */
const WARMING_UP = 20

/** What a change of a large site costs with its database and over HTTP, on a database of its own. Milliseconds, and bytes on the wire. */
export async function benchStore() {
  const home = mkdtempSync(join(tmpdir(), 'hallway-bench-'))
  const own = await startPrivateDatabase({ home, say: () => {} })
  process.env[DATABASE_URL_VARIABLE] = own.url
  try {
    const knex = database()
    await migrate(knex)
    const brought = await timedAsync(() => importPlan(knex, HAND, largeSite()))
    const site = (await knex('sites').first('id')).id as string
    const other = connect(own.url)
    const read = await timedAsync(() => currentCopy(other, site))
    let number = 0
    const save = () =>
      changeSite(knex, site, HAND, (copy) => {
        number += 1
        return { what: { name: 'change run', about: ['bench'] }, edits: [noteOn(copy, number)] }
      })
    const saves: number[] = []
    const caughtUp: number[] = []
    for (let go = 0; go < GOES; go += 1) {
      saves.push(await timedAsync(save))
      caughtUp.push(await timedAsync(() => currentCopy(other, site)))
    }
    await other.destroy()
    const http = await overHttp(site)
    return { brought, read, save: median(saves), caughtUp: median(caughtUp), ...http }
  } finally {
    await closeDatabase()
    await own.stop()
    rmSync(home, { recursive: true, force: true })
  }
}

/** The same through the pages: a form is sent, and what came of it is asked for as a browser does. */
async function overHttp(site: string) {
  const build = await import(pathToFileURL(join(root, 'build/app/server/index.js')).href)
  const server = createServer(application({ build, clientFolder: join(root, 'build/app/client'), names: new Set() }))
  await new Promise<void>((opened) => server.listen(0, '127.0.0.1', opened))
  const address = `http://127.0.0.1:${(server.address() as AddressInfo).port}/sites/${site}`
  try {
    await (await fetch(`${address}.data`)).text()
    const { copy, identity } = (await currentCopy(database(), site)) ?? {}
    if (!copy || !identity) throw new Error('the bench lost its site')
    const run = copy.plan.runs[3]
    if (!run) throw new Error('the bench has no run')
    const saves: number[] = []
    let bytes = 0
    let base = copy.place
    for (let go = -WARMING_UP; go < GOES; go += 1) {
      const form = new URLSearchParams({
        tag: run.tag,
        from: `${run.from.device}/${run.from.port}`,
        to: `${run.to.device}/${run.to.port}`,
        length: `${0.3 + ((go + WARMING_UP) % 7) / 10} m`,
        'leads[0]': run.leads[0]?.cable ?? '',
        base: String(base),
        had: '',
      })
      const started = performance.now()
      const saved = await fetch(`${address}/runs/${run.id}.data`, { method: 'POST', body: form })
      const answer = await saved.text()
      if (go >= 0) saves.push(performance.now() - started)
      const told = await (
        await fetch(`${address}/changes?${new URLSearchParams({ since: String(base), identity })}`)
      ).text()
      bytes = answer.length + told.length
      base = JSON.parse(told).place
    }
    return { httpSave: median(saves), savedBytes: bytes, firstCopyBytes: await zippedBytes(address) }
  } finally {
    server.closeAllConnections()
    server.close()
  }
}

/** Bytes of the page's first copy as they travel. */
async function zippedBytes(address: string): Promise<number> {
  const { get } = await import('node:http')
  return new Promise((counted, failed) => {
    get(`${address}.data?_routes=routes%2Fsite`, { headers: { 'Accept-Encoding': 'gzip' } }, (answer) => {
      const parts: Buffer[] = []
      answer.on('data', (part: Buffer) => parts.push(part))
      answer.on('end', () => {
        const whole = Buffer.concat(parts)
        // what cannot be unzipped is no whole answer
        gunzipSync(whole)
        counted(whole.length)
      })
    }).on('error', failed)
  })
}

async function timedAsync(work: () => Promise<unknown>): Promise<number> {
  const started = performance.now()
  await work()
  return performance.now() - started
}
