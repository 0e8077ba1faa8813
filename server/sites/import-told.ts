import { closeSync, openSync, readFileSync, readSync } from 'node:fs'
import { isArchive } from '../../core/files/file-types'
import type { Fault } from '../../core/plan/entity'
import { readPlanText } from '../../core/plan/read'
import { closeDatabase, database, isDatabaseAway } from '../database/connection'
import { Failure, isDiskFull } from '../failure'
import { openArchive } from '../files/read-archive'
import type { Hand } from './change-site'
import { importPlan } from './sites'

/** What came of a file that was to become a site. */
export type Imported =
  | { became: 'site'; id: string; leftOut: number }
  | { became: 'refused'; problem: string | null; faults: Fault[]; more: boolean }
  | { became: 'away' }
  | { became: 'full' }

/** A file by its path, or the text of one. */
type Told = { path: string } | { text: string }

/**
 * Makes a site of a plan file or an archive, whichever it is: read, checked and written on the thread that calls it, over a connection of its own, so that the
 * web server's thread does none of it.
 */
export async function importTold({ told, hand }: { told: Told; hand: Hand }): Promise<Imported> {
  const archive = 'path' in told && isArchive(firstBytes(told.path)) ? await openArchive(told.path) : null
  if (archive && !archive.ok) return refused(archive.problem)
  const open = archive?.value ?? null
  try {
    const read = readPlanText(open ? open.plan : 'path' in told ? readFileSync(told.path, 'utf8') : told.text)
    if (!read.ok) return { became: 'refused', problem: null, faults: read.faults, more: read.more }
    const id = await importPlan(database(), hand, read.plan, open ?? undefined)
    return { became: 'site', id, leftOut: open?.leftOut() ?? 0 }
  } catch (error) {
    if (isDatabaseAway(error)) return { became: 'away' }
    if (isDiskFull(error)) return { became: 'full' }
    if (error instanceof Failure) return refused(error.message)
    throw error
  } finally {
    open?.close()
    await closeDatabase()
  }
}

const refused = (problem: string): Imported => ({ became: 'refused', problem, faults: [], more: false })

export function firstBytes(path: string): Uint8Array {
  const bytes = new Uint8Array(4)
  const file = openSync(path, 'r')
  try {
    readSync(file, bytes)
  } finally {
    closeSync(file)
  }
  return bytes
}
