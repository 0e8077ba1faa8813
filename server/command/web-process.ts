import { type ChildProcess, spawn } from 'node:child_process'
import { join } from 'node:path'
import { Failure } from '../failure'
import { root } from './home'

/** The process that answers pages, started again whenever it dies. */
export type WebProcess = { stop(): Promise<void> }

type Options = { host: string; port: number; say: (line: string) => void }

const FIRST_PAUSE_MS = 500
const LONGEST_PAUSE_MS = 30_000
/** One that has lived so long died of something new. */
const SOUND_AFTER_MS = 60_000

/** What is no longer used is cleared away once there is as much of it as of what is. Left alone, Node lets it come to four times that. */
const GROWS_PERCENT = 100
/** Threads that each had room of their own would keep it when they end. */
const MOST_ARENAS = '2'

/**
 * Starts the web server in a process of its own, apart from the database: whatever ends it, the database stays, and another takes its place after a pause
 * that grows while it keeps dying.
 */
export async function startWebProcess({ host, port, say }: Options): Promise<WebProcess> {
  let child: ChildProcess | null = null
  let stopping = false
  let pause = FIRST_PAUSE_MS
  const begin = (): Promise<boolean> => {
    const started = Date.now()
    // the first as the launcher starts the command line itself: see there
    const flags = [
      '--max-semi-space-size=64',
      `--heap-growing-percent=${GROWS_PERCENT}`,
      join(root, 'build/command/hallway.js'),
    ]
    const own = spawn(process.execPath, [...flags, 'serve', '--host', host, '--port', String(port)], {
      stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
      env: { MALLOC_ARENA_MAX: MOST_ARENAS, ...process.env },
    })
    child = own
    return new Promise((settled) => {
      let opened = false
      own.once('message', () => {
        opened = true
        settled(true)
      })
      own.once('exit', (code, signal) => {
        settled(false)
        if (stopping || !opened) return
        if (Date.now() - started > SOUND_AFTER_MS) pause = FIRST_PAUSE_MS
        say(`The web process ended (${signal ?? `code ${code}`}). It is started again in ${pause / 1000} s.`)
        setTimeout(again, pause)
        pause = Math.min(LONGEST_PAUSE_MS, pause * 2)
      })
    })
  }
  const again = async () => {
    if (stopping) return
    const up = await begin()
    if (stopping) return
    if (up) return say(`Web process ${pidOf(child)}.`)
    say(`The web process did not come up. It is tried again in ${pause / 1000} s.`)
    setTimeout(again, pause)
    pause = Math.min(LONGEST_PAUSE_MS, pause * 2)
  }
  if (!(await begin())) throw new Failure('The web server did not start; what it said stands above.')
  say(`Web process ${pidOf(child)}.`)
  return {
    async stop() {
      stopping = true
      const own = child
      if (!own || own.exitCode !== null || own.signalCode !== null) return
      const ended = new Promise((done) => own.once('exit', done))
      own.kill('SIGTERM')
      await ended
    },
  }
}

const pidOf = (child: ChildProcess | null): number => child?.pid ?? 0
