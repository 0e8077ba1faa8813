import type { Knex } from 'knex'

/** What is inside a device (battery, drive), how a cable is fed and how thick its wire is, what a route passes. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.alterTable('devices', (table) => {
    table.json('inside').notNullable().defaultTo('{}')
  })
  await knex.schema.alterTable('cables', (table) => {
    table.double('awg')
    table.string('feed', 16).notNullable().defaultTo('bus')
  })
  await knex.schema.alterTable('runs', (table) => {
    table.json('route_through')
  })
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.alterTable('runs', (table) => table.dropColumn('route_through'))
  await knex.schema.alterTable('cables', (table) => table.dropColumns('awg', 'feed'))
  await knex.schema.alterTable('devices', (table) => table.dropColumn('inside'))
}
