import type { Knex } from 'knex'

/** What was made for a handover and is kept with it, in parts that the database takes at once; and the long jobs that make such things. */
export async function up(knex: Knex): Promise<void> {
  const key = (table: Knex.CreateTableBuilder, name: string) =>
    table.specificType(name, 'VARCHAR(64) CHARACTER SET ascii COLLATE ascii_bin').notNullable()
  await knex.schema.createTable('documents', (table) => {
    key(table, 'site_id')
    table.foreign('site_id').references('id').inTable('sites').onDelete('CASCADE')
    key(table, 'handover')
    table.specificType('name', 'VARCHAR(190) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin').notNullable()
    table.string('type', 80).notNullable()
    table.integer('size').unsigned().notNullable()
    table.datetime('made', { precision: 3 }).notNullable()
    table.primary(['site_id', 'handover', 'name'])
  })
  await knex.schema.createTable('document_parts', (table) => {
    key(table, 'site_id')
    key(table, 'handover')
    table.specificType('name', 'VARCHAR(190) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin').notNullable()
    table
      .foreign(['site_id', 'handover', 'name'])
      .references(['site_id', 'handover', 'name'])
      .inTable('documents')
      .onDelete('CASCADE')
    table.integer('number').unsigned().notNullable()
    table.specificType('bytes', 'MEDIUMBLOB').notNullable()
    table.primary(['site_id', 'handover', 'name', 'number'])
  })
  await knex.schema.createTable('jobs', (table) => {
    key(table, 'id').primary()
    key(table, 'site_id')
    table.foreign('site_id').references('id').inTable('sites').onDelete('CASCADE')
    key(table, 'about')
    table.string('state', 20).notNullable()
    table.string('by_name', 120).notNullable()
    table.datetime('began', { precision: 3 }).notNullable()
    // the process that does it says so again and again
    table.datetime('beat', { precision: 3 }).notNullable()
    table.integer('pages').unsigned().notNullable().defaultTo(0)
    table.boolean('stop').notNullable().defaultTo(false)
    table.string('problem', 500)
    table.index(['site_id', 'about', 'began'])
  })
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.dropTableIfExists('jobs')
  await knex.schema.dropTableIfExists('document_parts')
  await knex.schema.dropTableIfExists('documents')
}
