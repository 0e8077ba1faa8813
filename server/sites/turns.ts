import pLimit, { type LimitFunction } from 'p-limit'

/** Writers that may hold a connection at one time: the rest of the pool is for readers. */
const WRITERS = 5
const writers = pLimit(WRITERS)
const turns = new Map<string, LimitFunction>()

/**
 * Lets the writers of some sites wait for their turn here, where waiting costs nothing. In the database each would hold a connection. Other processes take
 * their turns by the sites' rows. Turns are taken in the order of the ids, so that nobody waits for somebody who waits for them.
 */
export function inTurn<T>(siteIds: readonly string[], work: () => Promise<T>): Promise<T> {
  const [first, ...others] = [...new Set(siteIds)].sort()
  return first === undefined ? writers(work) : turnOf(first, () => inTurn(others, work))
}

async function turnOf<T>(siteId: string, work: () => Promise<T>): Promise<T> {
  const turn = turns.get(siteId) ?? pLimit(1)
  turns.set(siteId, turn)
  try {
    return await turn(work)
  } finally {
    if (turn.activeCount === 0 && turn.pendingCount === 0) turns.delete(siteId)
  }
}
