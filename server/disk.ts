import { statfs } from 'node:fs/promises'
import { home } from './command/home'

/** Below it the database may stop at any save. */
const LEAST_ROOM_BYTES = 20_000_000
const FULL_FOR_MS = 60_000
let fullAt = Number.NEGATIVE_INFINITY

/** Notes that something could not be written for want of room, as a database elsewhere says it. */
export const noteFull = (): void => {
  fullAt = Date.now()
}

/** Whether there is no room to save: on the disk that Hallway's own folder is on, or where a database elsewhere has said so within a minute. */
export async function isFull(): Promise<boolean> {
  if (Date.now() - fullAt < FULL_FOR_MS) return true
  const disk = await statfs(home).catch(() => null)
  return disk !== null && disk.bavail * disk.bsize < LEAST_ROOM_BYTES
}
