import type { Knex } from 'knex'

/** How thick a cable is, and how tight a route: its sharpest bend and its conduit. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.alterTable('cables', (table) => {
    table.double('thickness')
  })
  await knex.schema.alterTable('runs', (table) => {
    table.json('route_tight').notNullable().defaultTo('{}')
  })
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.alterTable('runs', (table) => table.dropColumn('route_tight'))
  await knex.schema.alterTable('cables', (table) => table.dropColumn('thickness'))
}
