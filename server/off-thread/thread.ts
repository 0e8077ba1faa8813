import { readFileSync, readlinkSync } from 'node:fs'

// What the web server's thread learns of the work of another: which thread of the system it is, and what that had worked before it began. Linux tells both.

/** The number of the thread, and the milliseconds it had worked when it began. */
export type Clock = Int32Array<SharedArrayBuffer>
export const newClock = (): Clock => new Int32Array(new SharedArrayBuffer(8))

/** A task by its name, with what it is given. */
export type Task = { name: string; input: unknown; clock: Clock }

// biome-ignore lint/suspicious/noExplicitAny: what a task takes is typed where it is asked for
type Tasks = Readonly<Record<string, (input: any) => unknown>>

/** What a thread runs: one of its tasks at a time, told of before it begins. */
export const runner =
  (tasks: Tasks) =>
  ({ name, input, clock }: Task): unknown => {
    noteThread(clock)
    const task = Object.hasOwn(tasks, name) ? tasks[name] : undefined
    if (!task) throw new Error(`there is no task ${name}`)
    return task(input)
  }

function noteThread(clock: Clock): void {
  try {
    const thread = Number(readlinkSync('/proc/thread-self').split('/').at(-1))
    clock[1] = workedMs(thread)
    clock[0] = thread
  } catch {
    // elsewhere the clock on the wall has to do
  }
}

const workedMs = (thread: number): number =>
  Number(readFileSync(`/proc/self/task/${thread}/schedstat`, 'utf8').split(' ')[0]) / 1e6

/** How long a task has worked, waiting for its turn not counted; null where that cannot be told. */
export function workOf(clock: Clock): number | null {
  const [thread = 0, before = 0] = clock
  if (thread === 0) return null
  try {
    return workedMs(thread) - before
  } catch {
    return null
  }
}
