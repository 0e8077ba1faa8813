import { buffer } from 'node:stream/consumers'
import { gunzipSync } from 'node:zlib'
import { leadKey } from '../../core/vocabulary/run'
import { connect, database } from '../database/connection'
import { changeSite } from '../sites/change-site'
import { currentCopy } from '../sites/copies'
import { importPlan } from '../sites/sites'
import { largeSite, noteOn } from './bench-change'
import { timedAsync, withOwnDatabase, withServer } from './bench-server'
import { median } from './timing'

const HAND = { by: 'the bench' }
const GOES = 40
/** Before a process is warm. */
const WARMING_UP = 20

/** What a change of a large site costs with its database and over HTTP, on a database of its own. Milliseconds, and bytes on the wire. */
export const benchStore = () =>
  withOwnDatabase(async (url) => {
    const knex = database()
    const brought = await timedAsync(() => importPlan(knex, HAND, largeSite()))
    const site = (await knex('sites').first('id')).id as string
    const other = connect(url)
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
    const http = await withServer((address) => overHttp(`${address}/sites/${site}`, site))
    return { brought, read, save: median(saves), caughtUp: median(caughtUp), ...http }
  })

/** The same through the pages: a form is sent, and what came of it is asked for as a browser does. */
async function overHttp(address: string, site: string) {
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
      'leads[0]': run.leads[0] ? leadKey(run.leads[0]) : '',
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
  return { httpSave: median(saves), savedBytes: bytes, firstCopyBytes: await zippedBytes(`${address}/copy`) }
}

/** Bytes of what is at an address as they travel; read as a browser would, so that what cannot be unzipped is no whole answer. */
export async function zippedBytes(address: string): Promise<number> {
  const { get } = await import('node:http')
  return new Promise((counted, failed) => {
    get(address, { headers: { 'Accept-Encoding': 'gzip' } }, (answer) => {
      buffer(answer).then((whole) => {
        if (answer.headers['content-encoding'] === 'gzip') gunzipSync(whole)
        counted(whole.length)
      }, failed)
    }).on('error', failed)
  })
}
