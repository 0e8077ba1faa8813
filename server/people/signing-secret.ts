import { randomBytes } from 'node:crypto'
import type { Knex } from 'knex'

const NAME = 'signing-secret'
const known = new WeakMap<Knex, string>()

/** What cookies are signed with: made once, and the same for every process that serves this database. */
export async function signingSecret(knex: Knex): Promise<string> {
  const found = known.get(knex)
  if (found) return found
  await knex('settings')
    .insert({ name: NAME, value: randomBytes(32).toString('hex') })
    .onConflict('name')
    .ignore()
  const { value } = await knex('settings').where({ name: NAME }).first('value')
  known.set(knex, value)
  return value
}
