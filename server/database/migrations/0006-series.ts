import type { Knex } from 'knex'

/**
 * What instruments send many times a second: a series for each time that one was put on a run, and its readings in chunks. They are no part of the plan, which
 * holds one observation of each.
 */
export async function up(knex: Knex): Promise<void> {
  const key = (table: Knex.CreateTableBuilder, name: string) =>
    table.specificType(name, 'VARCHAR(64) CHARACTER SET ascii COLLATE ascii_bin')
  await knex.schema.createTable('series', (table) => {
    key(table, 'site_id').notNullable()
    table.foreign('site_id').references('id').inTable('sites').onDelete('CASCADE')
    key(table, 'id').notNullable()
    key(table, 'run').notNullable()
    table.string('instrument', 120).notNullable()
    table.string('by_name', 120).notNullable()
    table.boolean('simulated').notNullable().defaultTo(false)
    table.datetime('began', { precision: 3 }).notNullable()
    table.datetime('heard', { precision: 3 }).notNullable()
    // somebody wrote it down, or its instrument said that it is over
    table.datetime('ended', { precision: 3 })
    table.boolean('written').notNullable().defaultTo(false)
    table.integer('samples').unsigned().notNullable().defaultTo(0)
    table.integer('rubbish').unsigned().notNullable().defaultTo(0)
    table.json('latest')
    table.primary(['site_id', 'id'])
    table.index(['site_id', 'heard'])
  })
  await knex.schema.createTable('series_chunks', (table) => {
    key(table, 'site_id').notNullable()
    key(table, 'series').notNullable()
    table.foreign(['site_id', 'series']).references(['site_id', 'id']).inTable('series').onDelete('CASCADE')
    table.integer('number').unsigned().notNullable()
    table.integer('samples').unsigned().notNullable()
    table.json('brief').notNullable()
    table.specificType('bytes', 'MEDIUMBLOB').notNullable()
    table.primary(['site_id', 'series', 'number'])
  })
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.dropTableIfExists('series_chunks')
  await knex.schema.dropTableIfExists('series')
}
