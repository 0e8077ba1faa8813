import { randomUUID } from 'node:crypto'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { setTimeout as wait } from 'node:timers/promises'
import { afterAll, expect, it } from 'vitest'
import { connect } from '../../server/database/connection'
import { wrongWithin } from '../support/actors'
import { demo } from '../support/demo-plan'
import { type KilledHallway, startToBeKilled } from '../support/killed-hallway'
import { placeOf } from '../support/stalls'

// Too long for every day: `npm run endure` (KILLS=50 for the whole of it). Drives the built command line.

const KILLS = Number(process.env.KILLS ?? 8)
const PORT = 4377
const address = `http://127.0.0.1:${PORT}`
const home = mkdtempSync(join(tmpdir(), 'hallway-several-'))
let running: KilledHallway | null = null
afterAll(async () => {
  running?.child.kill('SIGTERM')
  await wait(2000)
  rmSync(home, { recursive: true, force: true })
})

/** A store with many leads of one sort, to be taken one after the other. */
async function bringDepot(): Promise<string[]> {
  const { format, version, policy, kinds, cables } = demo
  const [lead] = cables
  if (!lead) throw new Error('the demo has cables')
  const { suppliedWith: _, ...plain } = lead
  const all = Array.from({ length: 2000 }, (_each, at) => ({
    ...plain,
    id: `d-${at}`,
    tag: `D-${String(at).padStart(4, '0')}`,
  }))
  const plan = { format, version, policy, kinds, site: { ...demo.site, id: 'depot', name: 'Depot' }, cables: all }
  const body = new FormData()
  body.set('file', new File([JSON.stringify(plan)], 'plan.json'))
  const answer = await fetch(`${address}/import`, { method: 'POST', body, redirect: 'manual' })
  if (answer.status !== 302) throw new Error(await answer.text())
  return all.map(({ id }) => id)
}

it(
  `${KILLS} kills while leads go from one site to another leave each in one of them, and each change in both logs or in none`,
  async () => {
    running = await startToBeKilled(home, PORT)
    const left = await bringDepot()
    const taken = new Set<string>()
    /** Takes lead after lead out of the depot into runs of the site, as Order does. */
    const writer = async (stopped: { now: boolean }, number: number) => {
      while (!stopped.now) {
        const cable = left.pop()
        const change = randomUUID()
        const run = demo.runs[number]
        const decided = {
          runs: [{ run: run?.id, leads: [{ cable: `depot:${cable}`, reversed: false }] }],
          alters: [],
          lines: [],
        }
        // sent until it is answered, as an outbox does: under its id it is one change
        for (let tries = 0; tries < 200 && !stopped.now; tries += 1) {
          try {
            const body = new URLSearchParams({
              decided: JSON.stringify(decided),
              base: await placeOf(address),
              change,
              back: '/',
            })
            const answer = await fetch(`${address}/sites/saltmarsh/order`, { method: 'POST', body, redirect: 'manual' })
            if (answer.status === 302) taken.add(change)
            if (answer.status < 500) break
          } catch {
            await wait(50)
          }
        }
      }
    }
    for (let kill = 0; kill < KILLS; kill += 1) {
      if (kill > 0) running = await startToBeKilled(home, PORT)
      const stopped = { now: false }
      const writers = [0, 1, 2].map((number) => writer(stopped, number))
      await wait(1500 + ((kill * 173) % 1100))
      process.kill(kill % 2 === 0 ? running.webPid : running.databasePid(), 'SIGKILL')
      await wait(2500)
      stopped.now = true
      running.child.kill('SIGKILL')
      await Promise.all(writers)
      await wait(300)
    }
    running = await startToBeKilled(home, PORT)
    expect(await wrongWithin(running.databaseUrl(), taken)).toEqual([])
    const knex = connect(running.databaseUrl())
    try {
      const logs = new Map<string, Set<string>>()
      for (const { site_id: site, id } of await knex('changes').where('place', '>', 1).select('site_id', 'id'))
        logs.set(site, (logs.get(site) ?? new Set()).add(id))
      const [here, there] = [logs.get('saltmarsh') ?? new Set(), logs.get('depot') ?? new Set()]
      expect([...here].filter((id) => !there.has(id))).toEqual([])
      expect([...there].filter((id) => !here.has(id))).toEqual([])
      expect([...taken].filter((id) => !here.has(id))).toEqual([])
      const tags: string[] = (await knex('entities').where({ list: 'cables' }).select('body')).map(
        ({ body }) => body.tag,
      )
      const ofDepot = tags.filter((tag) => tag.startsWith('D-'))
      // no lead is in both, and none in neither
      expect([ofDepot.length, new Set(ofDepot).size]).toEqual([2000, 2000])
    } finally {
      await knex.destroy()
    }
    expect(taken.size).toBeGreaterThan(KILLS)
    console.log(`${KILLS} kills, ${taken.size} leads that went from one site to the other`)
  },
  KILLS * 40_000,
)
