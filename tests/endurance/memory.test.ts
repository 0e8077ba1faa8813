import { randomUUID } from 'node:crypto'
import { readFileSync } from 'node:fs'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { pointsOf } from '../../server/web/costly'
import { demo } from '../support/demo-plan'
import { type HallwayProcess, signIn, startHallway } from '../support/hallway-process'
import { formOfRun, type SentRun } from '../support/run-form'
import { filledIn, patterns } from '../support/site-routes'

// Too long for every day: `npm run endure`. REQUESTS=100000 is the whole of it.

const REQUESTS = Number(process.env.REQUESTS ?? 20_000)
const SITES = Number(process.env.SITES ?? 115)
const PORT = 4375
const AT_ONCE = 4
const MOST_MEGABYTES = 600
const address = `http://127.0.0.1:${PORT}`

let hallway: HallwayProcess
let cookie = ''
beforeAll(async () => {
  hallway = await startHallway(PORT, { people: [{ name: 'Ada', may: 'admin' }] })
  cookie = await signIn(address, 'Ada')
  for (let at = 0; at < SITES; at += 1) await bring(at)
}, 600_000)
afterAll(() => hallway.stop())

/** Sites of their own names; every tenth is a store, whose leads are offered to the others. */
async function bring(at: number): Promise<void> {
  const { format, version, policy, kinds, cables } = demo
  const site = { ...demo.site, id: `site-${at}`, name: `Site ${at}` }
  const plan =
    at % 10 === 9
      ? { format, version, policy, kinds, site, cables: cables.map(({ suppliedWith: _, ...cable }) => cable) }
      : { ...demo, site }
  const body = new FormData()
  body.set('file', new File([JSON.stringify(plan)], 'plan.json'))
  const answer = await fetch(`${address}/import`, { method: 'POST', body, redirect: 'manual', headers: { cookie } })
  if (answer.status !== 302) throw new Error(`site ${at} was not taken: ${answer.status}`)
}

/** All pages, their data and what they fetch; what is costly is counted by the minute, and so is left to other tests. */
const asked = patterns
  .filter((pattern) => pattern.startsWith('/sites/') && !pattern.endsWith('/live'))
  .flatMap((pattern) => [filledIn(pattern, demo), `${filledIn(pattern, demo)}.data`])
  .filter((path) => pointsOf({ method: 'GET', path, bytes: 0 }) === 0)

const megabytes = (): number =>
  Number(/VmRSS:\s+(\d+) kB/.exec(readFileSync(`/proc/${hallway.webPid()}/status`, 'utf8'))?.[1]) / 1000

/** The figures that the process tells of what it keeps. */
async function kept(): Promise<Record<string, number>> {
  const text = await (await fetch(`${address}/metrics`)).text()
  return Object.fromEntries(
    [...text.matchAll(/^hallway_kept_bytes\{what="([^"]+)"\} (\S+)/gm)].map(([, what = '', bytes]) => [
      what,
      Number(bytes),
    ]),
  )
}

it(`${REQUESTS} requests over ${SITES} sites leave the memory level under ${MOST_MEGABYTES} MB`, async () => {
  const mix: Record<string, number> = {}
  const table: Record<string, number>[] = []
  const levels: number[] = []
  let seed = Number(process.env.SEED ?? 20_261_201)
  const below = (count: number): number => {
    seed = (seed * 1_103_515_245 + 12_345) % 2_147_483_648
    return Math.floor((seed / 2_147_483_648) * count)
  }
  const [run] = demo.runs as unknown as SentRun[]
  let sent = 0
  /** As from its page, which tells the place it was made from. */
  const save = async (site: string, run: SentRun): Promise<void> => {
    const path = `${address}/sites/${site}/runs/${run.id}`
    const page = await (await fetch(path, { headers: { cookie } })).text()
    const base = /data-copy-place="(\d+)"/.exec(page)?.[1] ?? '1'
    const body = formOfRun(run, { base, note: `note ${sent}`, change: randomUUID() })
    const answer = await fetch(path, { method: 'POST', body, redirect: 'manual', headers: { cookie } })
    await answer.arrayBuffer()
    mix[`a save, ${answer.status}`] = (mix[`a save, ${answer.status}`] ?? 0) + 1
  }
  const one = async (): Promise<void> => {
    sent += 1
    const site = `site-${below(SITES)}`
    if (sent % 40 === 0 && run && !site.endsWith('9')) return save(site, run)
    const path = asked[below(asked.length)] as string
    const answer = await fetch(`${address}${path.replace('/saltmarsh', `/${site}`)}`, {
      redirect: 'manual',
      headers: { cookie },
    })
    await answer.arrayBuffer()
    const sort = `${path.endsWith('.data') ? 'the data of a page' : path.includes('.') ? 'a file' : 'a page'}, ${answer.status}`
    mix[sort] = (mix[sort] ?? 0) + 1
    if (answer.status >= 500) throw new Error(`${answer.status} at ${path} of ${site}\n${hallway.said().slice(-3000)}`)
  }
  const every = Math.max(1, Math.floor(REQUESTS / 20))
  let next = every
  const worker = async (): Promise<void> => {
    while (sent < REQUESTS) {
      await one()
      if (sent < next) continue
      next += every
      levels.push(megabytes())
      table.push({ requests: sent, megabytes: Math.round(levels.at(-1) ?? 0), ...(await kept()) })
    }
  }
  await Promise.all(Array.from({ length: AT_ONCE }, worker))
  console.table(mix)
  console.table(table)
  expect(Math.max(...levels)).toBeLessThan(MOST_MEGABYTES)
  // the second half grows no further than the first had come to
  const half = Math.floor(levels.length / 2)
  expect(Math.max(...levels.slice(half))).toBeLessThan(1.15 * Math.max(...levels.slice(0, half)))
}, 3_600_000)
