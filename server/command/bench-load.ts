import { randomUUID } from 'node:crypto'
import { createServer } from 'node:net'
import { setTimeout as wait } from 'node:timers/promises'
import autocannon from 'autocannon'
import { database } from '../database/connection'
import { importPlan } from '../sites/sites'
import { demoPlan } from './bench-pages'
import { withOwnDatabase } from './bench-server'
import { startWebProcess } from './web-process'

/** One page under load: answers a second, and how long the middle one and the slowest in a hundred took, in milliseconds; answers that were none. */
export type Load = {
  page: string
  connections: number
  second: number
  median: number
  slowest: number
  failed: number
}

const CONNECTIONS = [1, 10, 50]
const SECONDS = 8
const WARMING_UP_SECONDS = 4
/** A technician who types quickly, and never stops. */
const WRITE_EVERY_MS = 250

/** Pages of the demo, from another process and zipped as browsers take them, while one writer changes the site beside. */
export const benchLoad = (): Promise<{ loads: Load[]; writes: number }> =>
  withOwnDatabase(async () => {
    const plan = demoPlan()
    const site = await importPlan(database(), { by: 'the bench' }, plan)
    const port = await freePort()
    const web = await startWebProcess({ host: '127.0.0.1', port, say: () => {} })
    const home = `http://127.0.0.1:${port}/sites/${site}`
    const writer = writesTo(home)
    try {
      const loads: Load[] = []
      for (const [page, path] of [
        ['board', ''],
        ['run', `/runs/${plan.runs[8]?.id}`],
        ['need', `/needs/${plan.needs[0]?.id}`],
        ['history', '/history'],
      ] as const)
        for (const connections of CONNECTIONS) {
          await shoot(home + path, connections, WARMING_UP_SECONDS)
          loads.push({ page, connections, ...(await shoot(home + path, connections, SECONDS)) })
        }
      return { loads, writes: writer.count() }
    } finally {
      await writer.stop()
      await web.stop()
    }
  })

/** Asks for a page over and over, over so many connections for so many seconds. */
export async function shoot(url: string, connections: number, duration: number, headers: Record<string, string> = {}) {
  const all = { 'accept-encoding': 'gzip, br', ...headers }
  const result = await autocannon({ url, connections, duration, headers: all })
  return {
    second: result['2xx'] / result.duration,
    median: result.latency.p50,
    slowest: result.latency.p99,
    failed: result.non2xx + result.errors,
  }
}

function writesTo(home: string) {
  let count = 0
  let going = true
  const done = (async () => {
    while (going) {
      const form = { intent: 'place', placeName: `Place ${count}`, change: randomUUID() }
      const answer = await fetch(`${home}/survey`, {
        method: 'POST',
        body: new URLSearchParams(form),
        redirect: 'manual',
      })
      if (answer.status === 302) count += 1
      await answer.arrayBuffer()
      await wait(WRITE_EVERY_MS)
    }
  })()
  return {
    count: () => count,
    async stop() {
      going = false
      await done
    },
  }
}

export const freePort = (): Promise<number> =>
  new Promise((found) => {
    const probe = createServer()
    probe.listen(0, '127.0.0.1', () => {
      const address = probe.address()
      probe.close(() => found(address && typeof address === 'object' ? address.port : 0))
    })
  })
