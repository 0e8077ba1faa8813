import type { Knex } from 'knex'

/** Files that belong to sites: drawings and photos. A file is named by its SHA-256. */
export async function up(knex: Knex): Promise<void> {
  const key = (table: Knex.CreateTableBuilder, name: string) =>
    table.specificType(name, 'VARCHAR(64) CHARACTER SET ascii COLLATE ascii_bin')
  await knex.schema.createTable('files', (table) => {
    key(table, 'site_id').notNullable()
    table.foreign('site_id').references('id').inTable('sites').onDelete('CASCADE')
    key(table, 'id').notNullable()
    key(table, 'type').notNullable()
    table.integer('size').unsigned().notNullable()
    table.specificType('bytes', 'LONGBLOB').notNullable()
    table.primary(['site_id', 'id'])
  })
}

export const down = (knex: Knex): Promise<void> => knex.schema.dropTableIfExists('files')
