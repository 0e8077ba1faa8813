import { join } from 'node:path'
import { Piscina } from 'piscina'
import { root } from '../command/home'
import { log } from '../log'
import { newClock, workOf } from './thread'

/** What came of work beside the web server's own thread: its value, or why there is none, in words, with the status that goes with them. */
export type Done<T> = { done: true; value: T } | { done: false; problem: string; status: number }

/** How long a task may work, and who may call it off. */
type Bounds = { seconds?: number; leaves?: AbortSignal }

/** Reading a file of the largest size takes a few. */
const LONGEST_SECONDS = 20
const MOST_MEGABYTES = 768
const MOST_AT_ONCE = 2
const MOST_WAITING = 8

let pool: Piscina | undefined

/** Threads are started when there is work for them and end when there has been none for a while. */
const threads = (): Piscina => {
  pool ??= new Piscina({
    filename: join(root, 'build/command/off-thread.js'),
    minThreads: 0,
    maxThreads: MOST_AT_ONCE,
    maxQueue: MOST_WAITING,
    idleTimeout: 30_000,
    resourceLimits: { maxOldGenerationSizeMb: MOST_MEGABYTES },
  })
  return pool
}

/** How often a task is looked after. */
const LOOK_EVERY_MS = 100
/** A task that waits for others, on a busy machine or for the database, has so many times its seconds. */
const WAITS_TIMES = 15

/**
 * Does one of the tasks of `app/off-thread-tasks.ts` on a thread of its own, so that nobody else waits for it. It is given up when it works longer or takes more
 * room than any honest file needs, or when whoever asked for it leaves. What counts is its own work: a busy machine makes no file too large.
 */
export async function offThread<T>(
  name: string,
  input: unknown,
  { seconds = LONGEST_SECONDS, leaves }: Bounds = {},
): Promise<Done<T>> {
  const clock = newClock()
  const enough = new AbortController()
  const begun = Date.now()
  const look = setInterval(() => {
    const worked = workOf(clock)
    const waited = Date.now() - begun
    if (worked !== null ? worked > seconds * 1000 || waited > WAITS_TIMES * seconds * 1000 : waited > seconds * 1000)
      enough.abort()
  }, LOOK_EVERY_MS)
  try {
    const signal = leaves ? AbortSignal.any([enough.signal, leaves]) : enough.signal
    return { done: true, value: await threads().run({ name, input, clock }, { signal }) }
  } catch (error) {
    const { name: kind, message, code } = error as Error & { code?: string }
    if (kind === 'AbortError')
      return { done: false, problem: `This took more than ${seconds} s of work and was given up.`, status: 422 }
    if (code === 'ERR_WORKER_OUT_OF_MEMORY')
      return { done: false, problem: 'This took more memory than any such file needs and was given up.', status: 422 }
    if (/queue is at limit/i.test(message))
      return { done: false, problem: 'Hallway is busy with other files. Try again in a moment.', status: 503 }
    log.error({ err: error, task: name }, 'work beside the thread failed')
    throw error
  } finally {
    clearInterval(look)
  }
}

export async function endThreads(): Promise<void> {
  await pool?.destroy()
  pool = undefined
}
