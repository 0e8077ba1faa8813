import { AsyncLocalStorage } from 'node:async_hooks'
import { setTimeout as wait } from 'node:timers/promises'

/** So long a request may wait for the database in all: for its turn, a connection, every question, every try again and every held row. */
export const REQUEST_MS = 7000
/** So long of it is for saving: there is time left to show what came of it. */
export const SAVE_MS = 5000
/** So much longer it may be asked what became of a save that was being written when its time was over. */
export const LAST_LOOK_MS = 1500

/** When something's time is over, by the clock that only goes forward; what is a part of something else has no more than that. */
type Deadline = { ends: number; whole: Deadline | undefined }

/** One a process, also between the command and the built application. */
const shared = globalThis as typeof globalThis & { hallwayDeadlines?: AsyncLocalStorage<Deadline> }
shared.hallwayDeadlines ??= new AsyncLocalStorage()
const deadlines = shared.hallwayDeadlines

/** Does something that has to be done within so long, counted together for all that it waits for. What goes on after it was answered, such as a stream, has no end. */
export async function withinTime<T>(work: () => Promise<T>, ms = REQUEST_MS): Promise<T> {
  const whole = deadlines.getStore()
  const deadline = { ends: Math.min(performance.now() + ms, whole?.ends ?? Number.POSITIVE_INFINITY), whole }
  try {
    // a question is asked when it is waited for, so it is waited for in here
    return await deadlines.run(deadline, async () => await work())
  } finally {
    deadline.ends = Number.POSITIVE_INFINITY
  }
}

/** How long is left for what is being done, in milliseconds; endless where nobody waits for it. */
export const timeLeft = (): number => (deadlines.getStore()?.ends ?? Number.POSITIVE_INFINITY) - performance.now()

/** Gives back time that was not spent waiting in vain. */
export function giveBack(ms: number): void {
  for (let each = deadlines.getStore(); each; each = each.whole) each.ends += ms
}

/** Does something that has bounds of its own, such as work on another thread, or that is work and no waiting: the time it takes is not counted. */
export async function offTheClock<T>(work: () => Promise<T>): Promise<T> {
  const began = performance.now()
  try {
    return await work()
  } finally {
    giveBack(performance.now() - began)
  }
}

/** Gives what is being done a last moment more, to find out what became of it. */
export function lastLook(): void {
  const deadline = deadlines.getStore()
  if (!deadline) return
  const more = Math.max(deadline.ends, performance.now()) + LAST_LOOK_MS
  deadline.ends = Math.min(more, deadline.whole?.ends ?? more)
}

/** The time of a request was over before the database had answered. To whoever asked it is a database that is away. */
export const outOfTime = (): Error => Object.assign(new Error('the time for this was over'), { code: 'ETIMEDOUT' })

/** What is waited for, or an error once the time for it is over; `late` is told of what comes after that. */
export async function inTime<T>(waited: Promise<T>, late: (value: T) => void = () => {}): Promise<T> {
  const left = timeLeft()
  if (left === Number.POSITIVE_INFINITY) return waited
  const over = new AbortController()
  const end = wait(Math.max(0, left), null, { signal: over.signal })
  try {
    const first = await Promise.race([waited.then((value) => ({ value })), end])
    if (first !== null) return first.value
  } finally {
    over.abort()
    end.catch(() => {})
  }
  waited.then(late, () => {})
  throw outOfTime()
}
