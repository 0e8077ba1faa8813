import { join } from 'node:path'
import { Piscina } from 'piscina'
import { root } from '../command/home'
import { offTheClock } from '../database/deadline'
import { log } from '../log'
import { newClock, workOf } from './thread'

/** What came of work beside the web server's own thread: its value, or why there is none, in words, with the status that goes with them. */
export type Done<T> = { done: true; value: T } | { done: false; problem: string; status: number }

/** How long a task may work, who may call it off, and beside which others it is done: what takes long has a lane of its own, so that no short read waits for it. */
type Bounds = { seconds?: number; leaves?: AbortSignal; lane?: LaneName }

/** Reading a file of the largest size takes a few. */
const LONGEST_SECONDS = 20
/** How many are done at once on a lane, how many may wait, and how much room each may take. */
const LANES = {
  short: { atOnce: 2, waiting: 8, megabytes: 768, young: 48 },
  // what it makes lives briefly, and much of it
  long: { atOnce: 1, waiting: 24, megabytes: 400, young: 80 },
} as const
type LaneName = keyof typeof LANES

const lanes = new Map<LaneName, Piscina>()

/** Threads are started when there is work for them and end when there has been none for a while. */
function threads(name: LaneName): Piscina {
  const known = lanes.get(name)
  if (known) return known
  const { atOnce, waiting, megabytes, young } = LANES[name]
  const lane = new Piscina({
    filename: join(root, 'build/command/off-thread.js'),
    minThreads: 0,
    maxThreads: atOnce,
    maxQueue: waiting,
    idleTimeout: 30_000,
    resourceLimits: { maxOldGenerationSizeMb: megabytes, maxYoungGenerationSizeMb: young },
  })
  lanes.set(name, lane)
  return lane
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
  { seconds = LONGEST_SECONDS, leaves, lane = 'short' }: Bounds = {},
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
    const value = await offTheClock(() => threads(lane).run({ name, input, clock }, { signal }))
    return { done: true, value }
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
  await Promise.all([...lanes.values()].map((lane) => lane.destroy()))
  lanes.clear()
}
