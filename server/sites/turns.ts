import pLimit, { type LimitFunction } from 'p-limit'

/** Writers that may hold a connection at one time: the rest of the pool is for readers. */
const WRITERS = 5
const writers = pLimit(WRITERS)
const turns = new Map<string, LimitFunction>()

/**
 * Lets the writers of one site wait for their turn here, where waiting costs nothing. In the database each would hold a connection. Other
 * processes take their turns by the site's row.
 */
export async function inTurn<T>(siteId: string, work: () => Promise<T>): Promise<T> {
  const turn = turns.get(siteId) ?? pLimit(1)
  turns.set(siteId, turn)
  try {
    return await turn(() => writers(work))
  } finally {
    if (turn.activeCount === 0 && turn.pendingCount === 0) turns.delete(siteId)
  }
}
