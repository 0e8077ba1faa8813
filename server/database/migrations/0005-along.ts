import type { Knex } from 'knex'

/** Which other sites a change changed with it: it is one change in the log of each, and is undone in all of them or in none. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.alterTable('changes', (table) => void table.json('along'))
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.alterTable('changes', (table) => void table.dropColumn('along'))
}
