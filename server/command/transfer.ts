import { createWriteStream, existsSync, statSync } from 'node:fs'
import { pipeline } from 'node:stream/promises'
import { isArchive, LARGEST_SITE_ARCHIVE_BYTES } from '../../core/files/file-types'
import { readPlanText } from '../../core/plan/read'
import { planText } from '../../core/plan/write'
import { Failure } from '../failure'
import type { OpenArchive } from '../files/read-archive'
import { siteArchive } from '../files/write-archive'
import { currentCopy } from '../sites/copies'
import { firstBytes } from '../sites/import-told'
import { importPlan, listSites } from '../sites/sites'
import { faultLine, readPlanFile } from './check'
import { withDatabase } from './with-database'

/** Writes a site as a plan file to standard output, or as an archive with its files. */
export async function exportSite(siteId: string, archive?: string): Promise<void> {
  await withDatabase(async (knex) => {
    const held = await currentCopy(knex, siteId)
    if (!held) {
      const known = (await listSites(knex)).map((site) => site.id).join(', ')
      throw new Failure(`There is no site "${siteId}".${known ? ` There are: ${known}.` : ' There are no sites yet.'}`)
    }
    if (archive === undefined) process.stdout.write(planText(held.copy.plan))
    else await pipeline(await siteArchive(knex, siteId, held.copy.plan), createWriteStream(archive, { mode: 0o600 }))
  })
}

/** Reads a plan file into a new site; an id already taken gets a number, and nothing is overwritten. */
export async function importFile(file: string): Promise<number> {
  const archive = await archiveIn(file)
  const read = archive ? readPlanText(archive.plan) : readPlanFile(file)
  if (!read.ok) {
    archive?.close()
    console.error(`${file} cannot be read as a plan; nothing was written:`)
    for (const fault of read.faults) console.error(`  ${faultLine(fault)}`)
    return 2
  }
  const id = await withDatabase((knex) =>
    importPlan(knex, { by: 'the terminal' }, read.plan, archive ?? undefined).finally(() => archive?.close()),
  )
  console.log(`Imported as site "${id}".`)
  const leftOut = archive?.leftOut() ?? 0
  if (leftOut > 0) console.log(`${leftOut} files in it were left out: Hallway had not made them.`)
  return 0
}

/** What a file holds where it is an archive; null where it is none, and is read as a plan file. */
async function archiveIn(file: string): Promise<OpenArchive | null> {
  if (!existsSync(file) || statSync(file).size > LARGEST_SITE_ARCHIVE_BYTES) return null
  if (!isArchive(firstBytes(file))) return null
  const { openArchive } = await import('../files/read-archive')
  const opened = await openArchive(file)
  if (!opened.ok) throw new Failure(`${file}: ${opened.problem}`)
  return opened.value
}
