import { randomUUID } from 'node:crypto'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { setTimeout as wait } from 'node:timers/promises'
import { afterAll, expect, it } from 'vitest'
import { wrongWithin } from '../support/actors'
import { type KilledHallway, startToBeKilled } from '../support/killed-hallway'
import { formOfRun, type SentRun } from '../support/run-form'

// Too long for every day: `npm run endure` (KILLS=50 for the whole of it). Drives the built command line.

const KILLS = Number(process.env.KILLS ?? 12)
const PORT = 4396
const SITE = 'saltmarsh'
const home = mkdtempSync(join(tmpdir(), 'hallway-kills-'))
const address = `http://127.0.0.1:${PORT}/sites/${SITE}`
let running: KilledHallway | null = null
afterAll(async () => {
  running?.child.kill('SIGTERM')
  await wait(2000)
  rmSync(home, { recursive: true, force: true })
})

/** Writes until it is told to stop; answers the changes that were acknowledged. */
async function writeUntil(stopped: { now: boolean }, acknowledged: Set<string>, writer: number): Promise<void> {
  let run: SentRun | undefined
  while (!stopped.now) {
    const change = randomUUID()
    try {
      run ??= ((await (await fetch(`${address}/plan.json`)).json()).runs as SentRun[])[writer]
      if (!run) throw new Error('the demo has runs for every writer')
      const form = formOfRun(run, { base: await placeNow(), note: `by ${writer}: ${change}`, change })
      const answer = await fetch(`${address}/runs/${run.id}`, { method: 'POST', body: form, redirect: 'manual' })
      if (answer.status === 302) acknowledged.add(change)
    } catch {
      await wait(30)
    }
  }
}

/** The place the site has come to, as open pages hear it. */
async function placeNow(): Promise<string> {
  const answer = await fetch(`${address}/live`)
  const reader = answer.body?.pipeThrough(new TextDecoderStream()).getReader()
  const said = (await reader?.read())?.value ?? ''
  await reader?.cancel()
  return /data: (\d+)/.exec(said)?.[1] ?? ''
}

it(
  `${KILLS} kills of database or web process lose nothing that was acknowledged, and leave nothing half there`,
  async () => {
    const acknowledged = new Set<string>()
    for (let kill = 0; kill < KILLS; kill += 1) {
      running = await startToBeKilled(home, PORT)
      const stopped = { now: false }
      const writers = [0, 1, 2].map((writer) => writeUntil(stopped, acknowledged, writer))
      await wait(1200 + ((kill * 137) % 900))
      process.kill(kill % 2 === 0 ? running.webPid : running.databasePid(), 'SIGKILL')
      // what died is started again by the process above it, which dies in its turn
      await wait(2500)
      running.child.kill('SIGKILL')
      stopped.now = true
      await Promise.all(writers)
      await wait(200)
    }
    running = await startToBeKilled(home, PORT)
    expect(acknowledged.size).toBeGreaterThan(KILLS)
    expect(await wrongWithin(running.databaseUrl(), acknowledged)).toEqual([])
    console.log(`${KILLS} kills, ${acknowledged.size} acknowledged changes`)
  },
  KILLS * 20_000,
)
