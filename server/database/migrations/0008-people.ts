import type { Knex } from 'knex'

/** Who may do what: people and how they sign in, where they are signed in, their rights on sites, links to look at one, and what scripts carry. */
export async function up(knex: Knex): Promise<void> {
  const key = (table: Knex.CreateTableBuilder, name: string) =>
    table.specificType(name, 'VARCHAR(64) CHARACTER SET ascii COLLATE ascii_bin').notNullable()
  const when = (table: Knex.CreateTableBuilder, name: string) => table.datetime(name, { precision: 3 })
  await knex.schema.createTable('people', (table) => {
    key(table, 'id').primary()
    // of those who left as well: a name stands in the history and is nobody else's, nor is one that only looks like it
    table.specificType('name', 'VARCHAR(120) CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci').notNullable().unique()
    table.string('password', 200)
    table.boolean('admin').notNullable().defaultTo(false)
    when(table, 'made').notNullable()
    when(table, 'retired')
  })
  await knex.schema.createTable('person_sessions', (table) => {
    key(table, 'digest').primary()
    key(table, 'person')
    table.foreign('person').references('id').inTable('people').onDelete('CASCADE')
    table.string('device', 120).notNullable()
    when(table, 'began').notNullable()
    when(table, 'seen').notNullable()
  })
  await knex.schema.createTable('invitations', (table) => {
    key(table, 'digest').primary()
    key(table, 'person')
    table.foreign('person').references('id').inTable('people').onDelete('CASCADE')
    when(table, 'until').notNullable()
  })
  await knex.schema.createTable('person_logins', (table) => {
    table.specificType('issuer', 'VARCHAR(190) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin').notNullable()
    table.specificType('subject', 'VARCHAR(190) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin').notNullable()
    key(table, 'person')
    table.foreign('person').references('id').inTable('people').onDelete('CASCADE')
    table.primary(['issuer', 'subject'])
  })
  await knex.schema.createTable('site_rights', (table) => {
    key(table, 'site_id')
    table.foreign('site_id').references('id').inTable('sites').onDelete('CASCADE')
    key(table, 'person')
    table.foreign('person').references('id').inTable('people').onDelete('CASCADE')
    key(table, 'held')
    // details that they are kept from
    table.string('hides', 60).notNullable().defaultTo('')
    table.primary(['site_id', 'person'])
  })
  await knex.schema.createTable('site_keys', (table) => {
    key(table, 'digest').primary()
    key(table, 'id').unique()
    key(table, 'site_id')
    table.foreign('site_id').references('id').inTable('sites').onDelete('CASCADE')
    table.string('name', 120).notNullable()
    key(table, 'sort')
    key(table, 'held')
    table.string('hides', 60).notNullable().defaultTo('')
    table.string('made_by', 120).notNullable()
    when(table, 'made').notNullable()
    when(table, 'until')
    when(table, 'used')
    table.integer('uses').unsigned().notNullable().defaultTo(0)
  })
}

export async function down(knex: Knex): Promise<void> {
  for (const table of ['site_keys', 'site_rights', 'person_logins', 'invitations', 'person_sessions', 'people'])
    await knex.schema.dropTableIfExists(table)
}
