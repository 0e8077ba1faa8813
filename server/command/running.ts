import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { home } from './home'

/** A Hallway that is running from this folder: its web address, and its database for other commands. */
export type Running = { pid: number; address: string; databaseUrl: string }

const file = join(home, 'running.json')

export function readRunning(): Running | null {
  if (!existsSync(file)) return null
  try {
    const running = JSON.parse(readFileSync(file, 'utf8')) as Running
    return isHallway(running.pid) ? running : null
  } catch {
    return null
  }
}

export function noteRunning(running: Running): void {
  mkdirSync(home, { recursive: true, mode: 0o700 })
  // holds the database's address with its password: for the owner only
  writeFileSync(file, JSON.stringify(running), { mode: 0o600 })
}

export const forgetRunning = (): void => rmSync(file, { force: true })

/** A process id may have been given to somebody else since. */
function isHallway(pid: number): boolean {
  try {
    return readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes('hallway')
  } catch {
    return false
  }
}
