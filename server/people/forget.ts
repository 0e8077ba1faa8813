import { randomUUID } from 'node:crypto'
import type { Knex } from 'knex'
import { bytesGrown, bytesOfPlan } from '../../core/plan/write'
import { inTransaction } from '../database/transaction'
import { Failure } from '../failure'
import { readCopy, siteRow } from '../sites/entity-rows'
import { retire } from './people'
import type { Person } from './person'
import type { MadeKey } from './site-keys'

/** What stands in the place of a name that was taken out. The number keeps those apart who were different people. */
const neutral = (number: number): string => `former colleague ${number}`

/** Where a name stands for itself. */
const COLUMNS = [
  ['changes', 'by_name'],
  ['series', 'by_name'],
  ['jobs', 'by_name'],
  ['site_keys', 'made_by'],
] as const
/** Where it stands within what was written, as the `by` of something. Runs say of their legs what they go along, which is nobody. */
const BODIES = [
  ['entities', 'body'],
  ['edits', 'value'],
  ['edits', 'was'],
] as const

/** Where a name still stands, which people wrote or handed over, and how often. */
export type StillNamed = { what: string; count: number }

/** The name that stands in its place, the links and tokens that the account made, and where the name still stands. */
export type Forgotten = { now: string; keys: readonly MadeKey[]; still: readonly StillNamed[] }

/**
 * Takes a person's name out of Hallway on request: the account ends, and wherever the name said who did something there stands a neutral one. Texts that people
 * wrote, books that were handed over and backups stay as they are; what of them still bears the name is told. Sites begin anew under an identity of their own,
 * so that no copy keeps it.
 */
export async function forget(
  knex: Knex,
  person: Person & { retired: boolean },
  handTo: Pick<Person, 'id' | 'name'> | null = null,
): Promise<Forgotten> {
  const keys = person.retired ? [] : await retire(knex, person, handTo)
  const now = await takeOut(knex, person)
  return { now, keys, still: await stillNamed(knex, person.name) }
}

/** Texts that hold a name; books that were handed over are counted as they are, as nobody reads in them. */
async function stillNamed(knex: Knex, name: string): Promise<StillNamed[]> {
  const holds = (column: string) => (query: Knex.QueryBuilder) =>
    void query.whereRaw('LOCATE(?, ??) > 0', [JSON.stringify(name).slice(1, -1), column])
  const count = async (query: Knex.QueryBuilder): Promise<number> =>
    Number((await query.count({ all: '*' }))[0]?.all ?? 0)
  const found = [
    { what: 'texts of sites', count: await count(knex('entities').where(holds('body'))) },
    { what: 'lines of the history', count: await count(knex('changes').where(holds('about'))) },
    { what: 'earlier states of texts', count: await count(knex('edits').where(holds('was'))) },
    { what: 'files that were handed over, each of which may', count: await count(knex('documents')) },
  ]
  return found.filter((each) => each.count > 0)
}

/** Puts a neutral name in the place of somebody's wherever it says who did something. Answers it. */
const takeOut = (knex: Knex, person: Pick<Person, 'id' | 'name'>): Promise<string> =>
  inTransaction(knex, async (trx) => {
    const taken = new Set<string>(await trx('people').pluck('name'))
    let number = 1
    while (taken.has(neutral(number))) number += 1
    const name = neutral(number)
    // locked as whoever changes a site locks it: a change that is under way comes first
    const sites: string[] = await trx('sites').orderBy('id').forUpdate().pluck('id')
    for (const [table, column] of COLUMNS) await trx(table).where(column, person.name).update(column, name)
    const asWritten = (each: string): string => `"by":${JSON.stringify(each)}`
    const was = asWritten(person.name)
    for (const [table, column] of BODIES)
      await trx(table)
        .whereNot({ list: 'runs' })
        .whereRaw('LOCATE(BINARY ?, ??) > 0', [was, column])
        .update(column, trx.raw('REPLACE(??, ?, ?)', [column, was, asWritten(name)]))
    await trx('people').where({ id: person.id }).update({ name })
    for (const id of sites) await beginAnew(trx, id)
    return name
  })

async function beginAnew(trx: Knex.Transaction, id: string): Promise<void> {
  const row = await siteRow(trx, id)
  if (!row) throw new Failure(`The site ${id} is not there any more. Nothing was changed.`)
  const { plan } = await readCopy(trx, row)
  await trx('sites')
    .where({ id })
    .update({ identity: randomUUID(), bytes: bytesOfPlan(plan), grown: bytesGrown(plan) })
}
