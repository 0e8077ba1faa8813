import { type ChildProcess, spawn, spawnSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { createServer } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { setTimeout as wait } from 'node:timers/promises'
import { afterAll, afterEach, describe, expect, it } from 'vitest'
import { PLAN_VERSION } from '../../core/plan/plan'

// These drive the built command line, so `./hallway test` builds before it runs them.

const home = mkdtempSync(join(tmpdir(), 'hallway-command-'))
const environment = { ...process.env, HALLWAY_HOME: home, HALLWAY_DATABASE_URL: undefined, HALLWAY_LOG: 'fatal' }
const PORT = 4397

let running: ChildProcess | null = null
afterEach(async () => {
  if (running && running.exitCode === null && running.signalCode === null) await end(running, 'SIGTERM')
  running = null
})
afterAll(() => rmSync(home, { recursive: true, force: true }))

type Started = { process: ChildProcess; said: string }

/** Starts Hallway and waits until its page answers, or until it ends. */
function start(...words: string[]): Promise<Started> {
  const child = spawn('node', ['build/command/hallway.js', ...words], {
    env: environment,
    stdio: ['ignore', 'pipe', 'pipe'],
  })
  running = child
  let said = ''
  return new Promise((settled) => {
    const hear = (text: Buffer) => {
      said += text
      if (said.includes('Hallway is open')) settled({ process: child, said })
    }
    child.stdout.on('data', hear)
    child.stderr.on('data', hear)
    child.once('exit', () => settled({ process: child, said }))
  })
}

function end(child: ChildProcess, signal: NodeJS.Signals): Promise<number | null> {
  return new Promise((ended) => {
    child.once('exit', (code) => ended(code))
    child.kill(signal)
  })
}

const health = async () => (await fetch(`http://127.0.0.1:${PORT}/health`)).status
const databasePid = () => Number(readFileSync(join(home, 'database.pid'), 'utf8'))
const lives = (pid: number): boolean => {
  try {
    process.kill(pid, 0)
    return true
  } catch {
    return false
  }
}
const command = (...words: string[]) =>
  spawnSync('node', ['build/command/hallway.js', ...words], { env: environment, encoding: 'utf8' })

describe('starting and stopping', () => {
  it('makes a private database, loads the demo once, serves, and ends both on SIGTERM', async () => {
    const first = await start('demo', '--port', String(PORT))
    expect(first.said).toContain('Loaded the demo site, Saltmarsh Pilotage School.')
    expect(await health()).toBe(200)
    expect(statSync(join(home, 'database-password')).mode & 0o777).toBe(0o600)
    expect(statSync(join(home, 'running.json')).mode & 0o777).toBe(0o600)
    const pid = databasePid()
    expect(await end(first.process, 'SIGTERM')).toBe(0)
    expect(lives(pid)).toBe(false)

    const second = await start('demo', '--port', String(PORT))
    expect(second.said).not.toContain('Loaded')
    expect(second.said).not.toContain('cleanly')
    expect(await end(second.process, 'SIGINT')).toBe(0)
  })

  it('recovers and says so after it was killed', async () => {
    const first = await start('start', '--port', String(PORT))
    await end(first.process, 'SIGKILL')
    const again = await start('start', '--port', String(PORT))
    expect(again.said).toContain('did not end cleanly last time')
    expect(await health()).toBe(200)
  })

  it('brings the database back when that is killed, and says so', async () => {
    await start('start', '--port', String(PORT))
    process.kill(databasePid(), 'SIGKILL')
    let status = 0
    for (let tries = 0; tries < 100 && status !== 200; tries += 1) {
      await wait(100)
      status = tries < 5 ? 0 : await health()
    }
    expect(status).toBe(200)
  })

  it('says clearly that a port is taken, with the flag to change it, and starts nothing', async () => {
    const other = createServer().listen(PORT, '127.0.0.1')
    await new Promise((listening) => other.once('listening', listening))
    const { process: child, said } = await start('start', '--port', String(PORT))
    await new Promise((closed) => other.close(closed))
    expect(child.exitCode).toBe(2)
    expect(said).toContain(
      `Port ${PORT} on 127.0.0.1 is already taken. Choose another: ./hallway start --port ${PORT + 1}`,
    )
    expect(said).not.toContain('at ')
  })

  it('does not start twice from one folder', async () => {
    await start('start', '--port', String(PORT))
    const second = command('start', '--port', String(PORT + 3))
    expect(second.status).toBe(2)
    expect(second.stderr).toContain('already runs from this folder')
    expect(await health()).toBe(200)
  })

  it.each([
    ['--port', 'x'],
    ['--port', '0'],
    ['--colour', 'red'],
  ])('refuses %s %s in a sentence', (...words) => {
    const { status, stderr } = command('start', ...words)
    expect(status).toBe(2)
    expect(stderr).not.toContain('    at ')
  })
})

describe('plan files', () => {
  it('go out and come back in, with Hallway open or not', async () => {
    const away = command('export', 'saltmarsh')
    const given = JSON.parse(readFileSync('demo/saltmarsh.json', 'utf8'))
    const written = JSON.parse(away.stdout)
    expect(written).toMatchObject({ format: 'hallway-plan', version: PLAN_VERSION, site: given.site })
    const tags = (plan: { cables: { tag: string }[] }) => plan.cables.map(({ tag }) => tag)
    expect(tags(written)).toEqual(tags(given))
    await start('start', '--port', String(PORT))
    const open = command('export', 'saltmarsh')
    expect(open.stdout).toBe(away.stdout)

    const file = join(home, 'plan.json')
    writeFileSync(file, open.stdout)
    expect(command('import', file).stdout).toMatch(/Imported as site "saltmarsh-\d+"/)
    expect(command('check', file).status).toBe(1)
  })
  it('of a site that is not there are refused with the names that are', () => {
    const { status, stderr } = command('export', 'nowhere')
    expect(status).toBe(2)
    expect(stderr).toMatch(/There is no site "nowhere". There are: .*saltmarsh/)
  })
  it('with faults are refused and nothing is written', () => {
    const file = join(home, 'bad.json')
    writeFileSync(file, '{"format":"hallway-plan","version":1}')
    const { status, stderr } = command('import', file)
    expect(status).toBe(2)
    expect(stderr).toContain('site: ')
  })
})

it('without a command tells what there is, and refuses what there is not', () => {
  expect(command().stdout).toMatch(/^ {2}demo \[options\] .*set up what is missing/m)
  expect(command('calc', 'drop', '--help').stdout).toContain('--awg <value>')
  expect(command('sing').status).toBe(2)
})
