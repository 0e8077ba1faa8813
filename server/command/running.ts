import { createHash } from 'node:crypto'
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { home } from './home'

/** A Hallway that is running from this folder: its web address, and its database for other commands. */
export type Running = { pid: number; address: string; databaseUrl: string }

/** Where it is noted: with a database of somebody's own beside that of Hallway's, so that one folder serves both. */
const noteOf = (databaseUrl: string | undefined): string =>
  join(
    home,
    databaseUrl
      ? `running-${createHash('sha256').update(databaseUrl).digest('hex').slice(0, 12)}.json`
      : 'running.json',
  )

/** The one that runs with a database that was given by its address, or with Hallway's own. */
export function readRunning(given: string | undefined): Running | null {
  const file = noteOf(given)
  if (!existsSync(file)) return null
  try {
    const running = JSON.parse(readFileSync(file, 'utf8')) as Running
    return isHallway(running.pid) ? running : null
  } catch {
    return null
  }
}

export function noteRunning(running: Running, given: string | undefined): void {
  mkdirSync(home, { recursive: true, mode: 0o700 })
  // holds the database's address with its password: for the owner only
  writeFileSync(noteOf(given), JSON.stringify(running), { mode: 0o600 })
}

export const forgetRunning = (given: string | undefined): void => rmSync(noteOf(given), { force: true })

/** A process id may have been given to somebody else since. */
function isHallway(pid: number): boolean {
  try {
    return readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes('hallway')
  } catch {
    return false
  }
}
