import { type ChildProcess, spawn } from 'node:child_process'
import { randomUUID } from 'node:crypto'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { setTimeout as wait } from 'node:timers/promises'
import { afterAll, expect, it } from 'vitest'
import { wrongWithin } from '../support/actors'
import { formOfRun, type SentRun } from '../support/run-form'

// Too long for every day: `npm run endure` (KILLS=50 for the whole of it). Drives the built command line.

const KILLS = Number(process.env.KILLS ?? 12)
const PORT = 4396
const SITE = 'saltmarsh'
const home = mkdtempSync(join(tmpdir(), 'hallway-kills-'))
const environment = { ...process.env, HALLWAY_HOME: home, HALLWAY_DATABASE_URL: undefined, HALLWAY_LOG: 'fatal' }
const address = `http://127.0.0.1:${PORT}/sites/${SITE}`
let running: ChildProcess | null = null
let webPid = 0
afterAll(async () => {
  running?.kill('SIGTERM')
  await wait(2000)
  rmSync(home, { recursive: true, force: true })
})

async function start(): Promise<void> {
  const child = spawn('node', ['build/command/hallway.js', 'demo', '--port', String(PORT)], {
    env: environment,
    stdio: ['ignore', 'pipe', 'pipe'],
  })
  running = child
  await new Promise<void>((opened, failed) => {
    let said = ''
    const hear = (text: Buffer) => {
      said += text
      webPid = Number(/Web process (\d+)/.exec(said)?.[1])
      if (said.includes('Hallway is open')) opened()
    }
    child.stdout.on('data', hear)
    child.stderr.on('data', hear)
    child.once('exit', () => failed(new Error(said)))
  })
}

const databaseUrl = (): string => JSON.parse(readFileSync(join(home, 'running.json'), 'utf8')).databaseUrl
const databasePid = (): number => Number(readFileSync(join(home, 'database.pid'), 'utf8'))

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
      await start()
      const stopped = { now: false }
      const writers = [0, 1, 2].map((writer) => writeUntil(stopped, acknowledged, writer))
      await wait(1200 + ((kill * 137) % 900))
      process.kill(kill % 2 === 0 ? webPid : databasePid(), 'SIGKILL')
      // what died is started again by the process above it, which dies in its turn
      await wait(2500)
      running?.kill('SIGKILL')
      stopped.now = true
      await Promise.all(writers)
      await wait(200)
    }
    await start()
    expect(acknowledged.size).toBeGreaterThan(KILLS)
    expect(await wrongWithin(databaseUrl(), acknowledged)).toEqual([])
    console.log(`${KILLS} kills, ${acknowledged.size} acknowledged changes`)
  },
  KILLS * 20_000,
)
