import { existsSync } from 'node:fs'
import { backUp, restore } from '../backup/backup'
import { Failure } from '../failure'
import { withDatabase } from './with-database'

/** Writes all sites with their logs to a file. */
export async function backupCommand(file: string): Promise<void> {
  if (existsSync(file)) throw new Failure(`${file} is there already; nothing was written over it.`)
  const { sites, changes } = await withDatabase((knex) => backUp(knex, file, { progress }))
  console.log(`${count(sites, 'site')} with ${count(changes, 'change')} written to ${file}, and read again.`)
}

/** Brings the sites of a backup into an empty database. */
export async function restoreCommand(file: string): Promise<void> {
  const { sites } = await withDatabase((knex) => restore(knex, file, progress))
  console.log(sites.length === 0 ? 'The backup held no sites.' : `Restored: ${sites.join(', ')}.`)
}

/** One line that counts, where somebody looks; nothing in a log. */
const progress = (doing: string, percent: number): void => {
  if (process.stderr.isTTY) process.stderr.write(`\r${doing}: ${percent} %${percent === 100 ? '\n' : ''}`)
}

const count = (number: number, what: string): string => `${number} ${number === 1 ? what : `${what}s`}`
