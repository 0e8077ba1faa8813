import { planText } from '../../core/plan/write'
import { Failure } from '../failure'
import { currentCopy } from '../sites/copies'
import { importPlan, listSites } from '../sites/sites'
import { faultLine, readPlanFile } from './check'
import { withDatabase } from './with-database'

/** Writes a site as a plan file to standard output. */
export async function exportSite(siteId: string): Promise<void> {
  await withDatabase(async (knex) => {
    const held = await currentCopy(knex, siteId)
    if (!held) {
      const known = (await listSites(knex)).map((site) => site.id).join(', ')
      throw new Failure(`There is no site "${siteId}".${known ? ` There are: ${known}.` : ' There are no sites yet.'}`)
    }
    process.stdout.write(planText(held.copy.plan))
  })
}

/** Reads a plan file into a new site; an id already taken gets a number, and nothing is overwritten. */
export async function importFile(file: string): Promise<number> {
  const read = readPlanFile(file)
  if (!read.ok) {
    console.error(`${file} cannot be read as a plan; nothing was written:`)
    for (const fault of read.faults) console.error(`  ${faultLine(fault)}`)
    return 2
  }
  const id = await withDatabase((knex) => importPlan(knex, { by: 'the terminal' }, read.plan))
  console.log(`Imported as site "${id}".`)
  return 0
}
