import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Knex } from 'knex'
import { connect, DATABASE_URL_VARIABLE, LONG_PATIENCE_MS } from '../database/connection'
import { migrate } from '../database/migrate'
import { addPerson, setPassword } from '../people/people'
import { startPrivateDatabase } from '../private-database/private-database'
import { importPlan } from '../sites/sites'
import { freePort, shoot } from './bench-load'
import { demoPlan } from './bench-pages'
import { busyMs, pidOfDatabase, pidSaid } from './busy'
import { median } from './timing'
import { startWebProcess } from './web-process'

/** A page without accounts and signed in: the processor time of an answer, in ms, and how many times the one costs the other. */
export type SignedInCost = { page: string; open: number; signedIn: number; times: number }

const ROUNDS = 15
const CONNECTIONS = 2
const WARMING_UP_SECONDS = 4
const SECONDS = 2
const NAME = 'Ada Wren'
const PASSWORD = 'a phrase that is long enough'

/** Pages of the demo, turn by turn without accounts and with: two of everything stand beside each other, so that a slow moment of the machine meets both. */
export async function benchPeople(): Promise<SignedInCost[]> {
  const plan = demoPlan()
  const open = await startSide(async () => {})
  const signedIn = await startSide(async (knex) => setPassword(knex, await addPerson(knex, { name: NAME }), PASSWORD))
  try {
    const cookie = await signIn(signedIn.address)
    const costs: SignedInCost[] = []
    for (const [page, path] of [
      ['board', ''],
      ['run', `/runs/${plan.runs[8]?.id}`],
      ['need', `/needs/${plan.needs[0]?.id}`],
    ] as const) {
      const cost = async (side: Side, seconds: number, headers: Record<string, string>): Promise<number> => {
        const before = busyMs(side.pids)
        const { second, failed } = await shoot(`${side.address}${path}`, CONNECTIONS, seconds, headers)
        if (failed > 0) throw new Error(`${failed} answers of ${page} were none`)
        return (busyMs(side.pids) - before) / (second * seconds)
      }
      await cost(open, WARMING_UP_SECONDS, {})
      await cost(signedIn, WARMING_UP_SECONDS, { cookie })
      const rounds: { open: number; signedIn: number }[] = []
      for (let round = 0; round < ROUNDS; round += 1)
        rounds.push({ open: await cost(open, SECONDS, {}), signedIn: await cost(signedIn, SECONDS, { cookie }) })
      costs.push({
        page,
        open: median(rounds.map((each) => each.open)),
        signedIn: median(rounds.map((each) => each.signedIn)),
        times: median(rounds.map((each) => each.signedIn / each.open)),
      })
    }
    return costs
  } finally {
    await open.stop()
    await signedIn.stop()
  }
}

/** A database with the demo in it and a web process before it. */
type Side = { address: string; pids: readonly number[]; stop(): Promise<void> }

async function startSide(prepare: (knex: Knex) => Promise<unknown>): Promise<Side> {
  const home = mkdtempSync(join(tmpdir(), 'hallway-bench-'))
  const own = await startPrivateDatabase({ home, say: () => {} })
  const knex = connect(own.url, { patienceMs: LONG_PATIENCE_MS })
  await migrate(knex)
  const site = await importPlan(knex, { by: 'the bench' }, demoPlan())
  await prepare(knex)
  const databasePid = await pidOfDatabase(knex)
  await knex.destroy()
  const port = await freePort()
  let webPid = 0
  process.env[DATABASE_URL_VARIABLE] = own.url
  const web = await startWebProcess({
    host: '127.0.0.1',
    port,
    say: (line) => {
      webPid = pidSaid(line)
    },
  })
  return {
    address: `http://127.0.0.1:${port}/sites/${site}`,
    pids: [databasePid, webPid],
    async stop() {
      await web.stop()
      await own.stop()
      rmSync(home, { recursive: true, force: true })
    },
  }
}

async function signIn(address: string): Promise<string> {
  const body = new URLSearchParams({ name: NAME, password: PASSWORD, to: '/' })
  const answer = await fetch(new URL('/sign-in', address), { method: 'POST', body, redirect: 'manual' })
  return answer.headers
    .getSetCookie()
    .map((cookie) => cookie.split(';')[0])
    .join('; ')
}
