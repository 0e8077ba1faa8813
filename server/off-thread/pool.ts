import { join } from 'node:path'
import { Piscina } from 'piscina'
import { root } from '../command/home'
import { log } from '../log'

/** What came of work beside the web server's own thread: its value, or why there is none, in words, with the status that goes with them. */
export type Done<T> = { done: true; value: T } | { done: false; problem: string; status: number }

/** How long a task may take, and who may call it off. */
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

/**
 * Does one of the tasks of `app/off-thread-tasks.ts` on a thread of its own, so that nobody else waits for it. It is given up when it takes longer or more
 * room than any honest file needs, or when whoever asked for it leaves.
 */
export async function offThread<T>(
  task: string,
  input: unknown,
  { seconds = LONGEST_SECONDS, leaves }: Bounds = {},
): Promise<Done<T>> {
  try {
    const tooLong = AbortSignal.timeout(seconds * 1000)
    const signal = leaves ? AbortSignal.any([tooLong, leaves]) : tooLong
    return { done: true, value: await threads().run(input, { name: task, signal }) }
  } catch (error) {
    const { name, message, code } = error as Error & { code?: string }
    if (name === 'AbortError')
      return { done: false, problem: `This took longer than ${seconds} s and was given up.`, status: 422 }
    if (code === 'ERR_WORKER_OUT_OF_MEMORY')
      return { done: false, problem: 'This took more memory than any such file needs and was given up.', status: 422 }
    if (/queue is at limit/i.test(message))
      return { done: false, problem: 'Hallway is busy with other files. Try again in a moment.', status: 503 }
    log.error({ err: error, task }, 'work beside the thread failed')
    throw error
  }
}

export async function endThreads(): Promise<void> {
  await pool?.destroy()
  pool = undefined
}
