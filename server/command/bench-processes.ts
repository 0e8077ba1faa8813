import { execFileSync } from 'node:child_process'
import { setTimeout as wait } from 'node:timers/promises'
import { database } from '../database/connection'
import { importPlan } from '../sites/sites'
import { freePort, shoot } from './bench-load'
import { demoPlan } from './bench-pages'
import { withOwnDatabase } from './bench-server'
import { busyMs, pidOfDatabase, pidSaid } from './busy'
import { startWebProcess } from './web-process'

/** Reading by so many web processes: answers a second of all together, and the processor time that one answer takes of theirs and of the database's, in ms. */
export type Spread = { processes: number; second: number; web: number; database: number }
/** What the question for other processes' changes costs: the share of one core that it takes of the database, and of each process. */
export type Asking = { processes: number; database: number; web: number }

const CONNECTIONS = 6
const WARMING_UP_SECONDS = 4
const SECONDS = 8
const LISTENING_MS = 15_000

/** How reading spreads over one, two and four processes, each held to one core, and what it costs that one, four and sixteen of them ask for each other's changes. */
export const benchProcesses = (): Promise<{ spread: Spread[]; asking: Asking[] }> =>
  withOwnDatabase(async () => {
    const site = await importPlan(database(), { by: 'the bench' }, demoPlan())
    const databasePid = await pidOfDatabase(database())
    const spread: Spread[] = []
    for (const processes of [1, 2, 4])
      spread.push(
        await withProcesses(processes, async (web) => {
          const all = (seconds: number) =>
            Promise.all(web.map(({ address }) => shoot(`${address}/sites/${site}`, CONNECTIONS, seconds)))
          await all(WARMING_UP_SECONDS)
          const pids = web.map(({ pid }) => pid)
          const before = [busyMs(pids), busyMs([databasePid])] as const
          const loads = await all(SECONDS)
          const second = loads.reduce((sum, load) => sum + load.second, 0)
          const answers = second * SECONDS
          return {
            processes,
            second,
            web: (busyMs(pids) - before[0]) / answers,
            database: (busyMs([databasePid]) - before[1]) / answers,
          }
        }),
      )
    const asking: Asking[] = []
    for (const processes of [1, 4, 16])
      asking.push(
        await withProcesses(processes, async (web) => {
          const pids = web.map(({ pid }) => pid)
          const share = async () => {
            const before = [busyMs(pids), busyMs([databasePid])] as const
            await wait(LISTENING_MS)
            return [busyMs(pids) - before[0], busyMs([databasePid]) - before[1]].map((ms) => ms / LISTENING_MS)
          }
          const open = new AbortController()
          await Promise.all(web.map(({ address }) => fetch(`${address}/sites/${site}`).then((page) => page.text())))
          await wait(3000)
          const [idleWeb = 0, idleDatabase = 0] = await share()
          for (const { address } of web)
            await fetch(`${address}/sites/${site}/live`, { signal: open.signal }).then((stream) => {
              stream.text().catch(() => {})
            })
          await wait(1000)
          const [webShare = 0, databaseShare = 0] = await share()
          open.abort()
          return {
            processes,
            database: Math.max(0, databaseShare - idleDatabase),
            web: Math.max(0, webShare - idleWeb) / processes,
          }
        }),
      )
    return { spread, asking }
  })

type Web = { address: string; pid: number }

/** Does work beside so many web processes, each held to one core, turn by turn. */
async function withProcesses<T>(count: number, work: (web: Web[]) => Promise<T>): Promise<T> {
  const web: (Web & { stop(): Promise<void> })[] = []
  try {
    for (let number = 0; number < count; number += 1) {
      const port = await freePort()
      let pid = 0
      const say = (line: string) => {
        pid = pidSaid(line)
      }
      const { stop } = await startWebProcess({ host: '127.0.0.1', port, say })
      web.push({ address: `http://127.0.0.1:${port}`, pid, stop })
      execFileSync('taskset', ['-a', '-c', '-p', String(number % CORES), String(pid)], { stdio: 'ignore' })
    }
    return await work(web)
  } finally {
    await Promise.all(web.map(({ stop }) => stop()))
  }
}

const CORES = 2
