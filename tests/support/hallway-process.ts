import { type ChildProcess, execFileSync, spawn } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { setTimeout as wait } from 'node:timers/promises'

/** The built Hallway with the demo, in a folder of its own, as a person would start it. */
export type HallwayProcess = {
  address: string
  home: string
  /** What it said so far. */
  said(): string
  pid(): number | undefined
  webPid(): number
  databaseUrl(): string
  stop(): Promise<void>
}

/** Somebody with an account: how they are called, and what they may do on the demo site; an admin may do everything. */
export type Somebody = { name: string; may: 'admin' | 'lead' | 'work' | 'look' | 'nothing' }

/** Every one of them has this password. */
export const PASSWORD = 'a phrase that is long enough'

/** Runs a command of the built Hallway, as whoever runs it would at the terminal, and answers what it said. */
export const command = (home: string, words: readonly string[], input = ''): string =>
  execFileSync('node', ['build/command/hallway.js', ...words], {
    encoding: 'utf8',
    input,
    env: { ...process.env, HALLWAY_HOME: home, HALLWAY_DATABASE_URL: undefined },
    stdio: ['pipe', 'pipe', 'pipe'],
  })

/** Signs somebody in. Answers the cookies that their browser carries from then on. */
export async function signIn(address: string, name: string): Promise<string> {
  const body = new URLSearchParams({ name, password: PASSWORD, to: '/' })
  // while a command ran nothing else was heard here, such as that a line was closed meanwhile
  await wait(50)
  const answer = await fetch(`${address}/sign-in`, { method: 'POST', body, redirect: 'manual' })
  if (answer.status !== 302) throw new Error(`${name} could not sign in: ${answer.status} ${await answer.text()}`)
  return answer.headers
    .getSetCookie()
    .map((cookie) => cookie.split(';')[0])
    .join('; ')
}

type Started = { environment?: Record<string, string>; people?: readonly Somebody[]; words?: readonly string[] }

export async function startHallway(
  port: number,
  { environment = {}, people = [], words = [] }: Started = {},
): Promise<HallwayProcess> {
  const home = mkdtempSync(join(tmpdir(), 'hallway-process-'))
  for (const { name, may } of people)
    command(home, ['people', 'add', name, '--password-stdin', ...(may === 'admin' ? ['--admin'] : [])], PASSWORD)
  const process_: ChildProcess = spawn('node', ['build/command/hallway.js', 'demo', '--port', String(port), ...words], {
    env: {
      ...process.env,
      HALLWAY_HOME: home,
      HALLWAY_DATABASE_URL: undefined,
      HALLWAY_LOG: 'error',
      ...environment,
    },
    stdio: ['ignore', 'pipe', 'pipe'],
  })
  let said = ''
  await new Promise<void>((opened, failed) => {
    const hear = (text: Buffer) => {
      said += text
      if (said.includes('Hallway is open')) opened()
    }
    process_.stdout?.on('data', hear)
    process_.stderr?.on('data', hear)
    process_.once('exit', () => failed(new Error(said)))
    // a test that gives up leaves nothing running
    process.once('exit', () => process_.kill('SIGTERM'))
  })
  for (const { name, may } of people)
    if (may !== 'admin' && may !== 'nothing') command(home, ['people', 'right', name, 'saltmarsh', may])
  return {
    address: `http://127.0.0.1:${port}`,
    home,
    said: () => said,
    pid: () => process_.pid,
    webPid: () => Number([...said.matchAll(/Web process (\d+)/g)].at(-1)?.[1]),
    databaseUrl: () => JSON.parse(readFileSync(join(home, 'running.json'), 'utf8')).databaseUrl,
    async stop() {
      const ended = new Promise((done) => process_.once('exit', done))
      process_.kill('SIGTERM')
      await ended
      rmSync(home, { recursive: true, force: true })
    },
  }
}
