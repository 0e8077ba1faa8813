import { database } from '../database/connection'
import { addPerson, setPassword } from '../people/people'
import { importPlan } from '../sites/sites'
import { freePort, shoot } from './bench-load'
import { demoPlan } from './bench-pages'
import { withOwnDatabase } from './bench-server'
import { median } from './timing'
import { startWebProcess } from './web-process'

/** A page without accounts and signed in: how many are answered a second, and how many times the one costs the other. */
export type SignedInCost = { page: string; open: number; signedIn: number; times: number }

const ROUNDS = 3
const CONNECTIONS = 4
const WARMING_UP_SECONDS = 4
const SECONDS = 5
const NAME = 'Ada Wren'
const PASSWORD = 'a phrase that is long enough'

/** Pages of the demo, turn by turn without accounts and with, each time in a web process of its own. */
export const benchPeople = (): Promise<SignedInCost[]> =>
  withOwnDatabase(async () => {
    const knex = database()
    const plan = demoPlan()
    const site = await importPlan(knex, { by: 'the bench' }, plan)
    const pages = [
      ['board', ''],
      ['run', `/runs/${plan.runs[8]?.id}`],
      ['need', `/needs/${plan.needs[0]?.id}`],
    ] as const
    const found = new Map<string, { open: number[]; signedIn: number[] }>()
    for (let round = 0; round < ROUNDS; round += 1)
      for (const way of ['open', 'signedIn'] as const) {
        await knex('people').delete()
        if (way === 'signedIn') await setPassword(knex, await addPerson(knex, { name: NAME }), PASSWORD)
        const port = await freePort()
        const web = await startWebProcess({ host: '127.0.0.1', port, say: () => {} })
        try {
          const address = `http://127.0.0.1:${port}`
          const cookie = way === 'open' ? '' : await signIn(address)
          for (const [page, path] of pages) {
            const url = `${address}/sites/${site}${path}`
            await shoot(url, CONNECTIONS, WARMING_UP_SECONDS, { cookie })
            const { second, failed } = await shoot(url, CONNECTIONS, SECONDS, { cookie })
            if (failed > 0) throw new Error(`${failed} of ${url} were not answered`)
            const known = found.get(page) ?? { open: [], signedIn: [] }
            known[way].push(second)
            found.set(page, known)
          }
        } finally {
          await web.stop()
        }
      }
    return [...found].map(([page, each]) => {
      const [open, signedIn] = [median(each.open), median(each.signedIn)]
      return { page, open, signedIn, times: open / signedIn }
    })
  })

async function signIn(address: string): Promise<string> {
  const body = new URLSearchParams({ name: NAME, password: PASSWORD, to: '/' })
  const answer = await fetch(`${address}/sign-in`, { method: 'POST', body, redirect: 'manual' })
  return answer.headers
    .getSetCookie()
    .map((cookie) => cookie.split(';')[0])
    .join('; ')
}
