import type { Knex } from 'knex'

/** Sort-out sessions and the soaks that run in them; cables get a revision of their own, as runs have. */
export async function up(knex: Knex): Promise<void> {
  const inSite = (table: Knex.CreateTableBuilder) => {
    table.string('site_id', 64).notNullable().references('id').inTable('sites').onDelete('CASCADE')
  }
  await knex.schema.createTable('sessions', (table) => {
    inSite(table)
    table.string('id', 64).notNullable()
    table.integer('position').unsigned().notNullable()
    table.json('spec').notNullable()
    table.primary(['site_id', 'id'])
  })
  await knex.schema.createTable('soaks', (table) => {
    inSite(table)
    table.string('session_id', 64).notNullable()
    table.string('cable_id', 64).notNullable()
    table.string('test_id', 64).notNullable()
    table.datetime('started_at', { precision: 3 }).notNullable().defaultTo(knex.fn.now(3))
    table.primary(['site_id', 'session_id', 'cable_id'])
    table.foreign(['site_id', 'session_id']).references(['site_id', 'id']).inTable('sessions').onDelete('CASCADE')
    table.foreign(['site_id', 'cable_id']).references(['site_id', 'id']).inTable('cables').onDelete('CASCADE')
  })
  await knex.schema.alterTable('cables', (table) => {
    table.integer('revision').unsigned().notNullable().defaultTo(1)
  })
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.alterTable('cables', (table) => table.dropColumn('revision'))
  await knex.schema.dropTableIfExists('soaks')
  await knex.schema.dropTableIfExists('sessions')
}
