import pLimit, { type LimitFunction } from 'p-limit'
import { busy } from '../database/connection'
import { inTime, timeLeft } from '../database/deadline'

/** Writers that may hold a connection at one time: the rest of the pool is for readers. */
const WRITERS = 5
const writers = pLimit(WRITERS)
const turns = new Map<string, LimitFunction>()

/**
 * Lets the writers of some sites wait for their turn here, where waiting costs nothing. In the database each would hold a connection. Other processes take
 * their turns by the sites' rows. Turns are taken in the order of the ids, so that nobody waits for somebody who waits for them. Whoever has no time left gives
 * up their turn: nothing was begun.
 */
export function inTurn<T>(siteIds: readonly string[], work: () => Promise<T>): Promise<T> {
  const [first, ...others] = [...new Set(siteIds)].sort()
  return first === undefined ? waitFor(writers, work) : turnOf(first, () => inTurn(others, work))
}

/** With less left than a save takes on a busy machine it is not begun: whoever came before took the time. */
const LEAST_LEFT_MS = 1000

/** Waits for a turn as long as there is time; what has begun ends by itself. */
async function waitFor<T>(turn: LimitFunction, work: () => Promise<T>): Promise<T> {
  let begin = () => {}
  let gaveUp = false
  const begun = new Promise<void>((done) => {
    begin = done
  })
  const done = turn(() => {
    begin()
    if (gaveUp || timeLeft() < LEAST_LEFT_MS) throw busy(null)
    return work()
  })
  // whoever gave up hears of nothing that comes after
  done.catch(() => {})
  try {
    await inTime(begun)
  } catch (error) {
    gaveUp = true
    throw busy(error)
  }
  return done
}

async function turnOf<T>(siteId: string, work: () => Promise<T>): Promise<T> {
  const turn = turns.get(siteId) ?? pLimit(1)
  turns.set(siteId, turn)
  try {
    return await waitFor(turn, work)
  } finally {
    if (turn.activeCount === 0 && turn.pendingCount === 0) turns.delete(siteId)
  }
}
