import { statfs } from 'node:fs/promises'
import { join } from 'node:path'
import { home } from './command/home'

/** Below it the database may stop at any save, and is not asked to grow. */
const LEAST_ROOM_BYTES = 50_000_000
const FULL_FOR_MS = 60_000
let fullAt = Number.NEGATIVE_INFINITY

/** Notes that something could not be written for want of room, as a database elsewhere says it. */
export const noteFull = (): void => {
  fullAt = performance.now()
}

/** Whether there is no room to save: on the disk that the private database is on, or where a database elsewhere has said so within a minute. */
export async function isFull(): Promise<boolean> {
  if (performance.now() - fullAt < FULL_FOR_MS) return true
  const disk = await statfs(join(home, 'database')).catch(() => null)
  return disk !== null && disk.bavail * disk.bsize < LEAST_ROOM_BYTES
}

/** Stands before whatever makes the database grow: a disk that fills is told while all that was saved is sound. */
export async function withRoom<T>(work: () => Promise<T>): Promise<T> {
  if (await isFull()) throw Object.assign(new Error('there is no room left to save'), { code: 'ENOSPC' })
  return work()
}
