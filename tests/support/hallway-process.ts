import { type ChildProcess, execFileSync, spawn } from 'node:child_process'
import { existsSync, mkdirSync, mkdtempSync, readFileSync, renameSync, rmSync, statSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { setTimeout as wait } from 'node:timers/promises'
import { flushLess } from './flush-less'

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

type Started = {
  environment?: Record<string, string>
  people?: readonly Somebody[]
  words?: readonly string[]
  /** Where it is kept; in a folder of its own where nobody says. */
  home?: string
}

/** Waits until a Hallway says that it is open. Answers how to hear what it said so far. */
export async function whenOpen(child: ChildProcess): Promise<() => string> {
  let said = ''
  await new Promise<void>((opened, failed) => {
    const hear = (text: Buffer) => {
      said += text
      if (said.includes('Hallway is open')) opened()
    }
    child.stdout?.on('data', hear)
    child.stderr?.on('data', hear)
    child.once('exit', () => failed(new Error(said)))
    // a test that gives up leaves nothing running
    process.once('exit', () => child.kill('SIGTERM'))
  })
  return () => said
}

/** Starts the demo in a folder and waits until it is open. */
async function open(home: string, port: number, { environment = {}, words = [] }: Started) {
  // with the room that ./hallway gives it
  const node = ['--max-semi-space-size=64', 'build/command/hallway.js']
  const child: ChildProcess = spawn('node', [...node, 'demo', '--port', String(port), ...words], {
    env: {
      ...process.env,
      HALLWAY_HOME: home,
      HALLWAY_DATABASE_URL: undefined,
      HALLWAY_LOG: 'error',
      // as whoever runs Hallway has it
      NODE_ENV: 'production',
      ...environment,
    },
    stdio: ['ignore', 'pipe', 'pipe'],
  })
  const said = await whenOpen(child)
  await flushLess(join(home, 'database.sock'))
  return {
    child,
    said,
    async close() {
      const ended = new Promise((done) => child.once('exit', done))
      child.kill('SIGTERM')
      await ended
    },
  }
}

/** A folder with the demo in it, made once for a build; whoever needs a Hallway begins with a copy of it. */
async function madeHome(port: number): Promise<string> {
  const kept = resolve('test-results', `demo-home-${Math.round(statSync('build/command/.made').mtimeMs)}`)
  if (existsSync(kept)) return kept
  mkdirSync('test-results', { recursive: true })
  const making = mkdtempSync(join(tmpdir(), 'hallway-made-'))
  const made = await open(making, port, {})
  await made.close()
  const beside = `${kept}-${process.pid}`
  execFileSync('cp', ['-a', making, beside])
  rmSync(making, { recursive: true, force: true })
  try {
    renameSync(beside, kept)
  } catch (error) {
    // another made it meanwhile
    if (!existsSync(kept)) throw error
    rmSync(beside, { recursive: true, force: true })
  }
  return kept
}

export async function startHallway(port: number, started: Started = {}): Promise<HallwayProcess> {
  const { people = [], home = mkdtempSync(join(tmpdir(), 'hallway-process-')) } = started
  mkdirSync(home, { recursive: true })
  execFileSync('cp', ['-a', `${await madeHome(port)}/.`, home])
  for (const { name, may } of people)
    command(home, ['people', 'add', name, '--password-stdin', ...(may === 'admin' ? ['--admin'] : [])], PASSWORD)
  const { child, said, close } = await open(home, port, started)
  for (const { name, may } of people)
    if (may !== 'admin' && may !== 'nothing') command(home, ['people', 'right', name, 'saltmarsh', may])
  return {
    address: `http://127.0.0.1:${port}`,
    home,
    said,
    pid: () => child.pid,
    webPid: () => Number([...said().matchAll(/Web process (\d+)/g)].at(-1)?.[1]),
    databaseUrl: () => JSON.parse(readFileSync(join(home, 'running.json'), 'utf8')).databaseUrl,
    async stop() {
      await close()
      rmSync(home, { recursive: true, force: true })
    },
  }
}
