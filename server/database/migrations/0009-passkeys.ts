import type { Knex } from 'knex'

/** What people come in with instead of a password: a device of theirs that has shown it holds a key. Only what proves it is kept here, never the key. */
export async function up(knex: Knex): Promise<void> {
  const key = (table: Knex.CreateTableBuilder, name: string) =>
    table.specificType(name, 'VARCHAR(64) CHARACTER SET ascii COLLATE ascii_bin').notNullable()
  const ascii = (table: Knex.CreateTableBuilder, name: string, length: number) =>
    table.specificType(name, `VARCHAR(${length}) CHARACTER SET ascii COLLATE ascii_bin`).notNullable()
  await knex.schema.createTable('person_passkeys', (table) => {
    // the sum of what the device calls it, which may be long
    key(table, 'digest').primary()
    key(table, 'person')
    table.foreign('person').references('id').inTable('people').onDelete('CASCADE')
    ascii(table, 'credential', 1400)
    ascii(table, 'public_key', 2000)
    ascii(table, 'transports', 200)
    table.bigInteger('counter').unsigned().notNullable()
    table.string('name', 120).notNullable()
    table.datetime('made', { precision: 3 }).notNullable()
    table.datetime('used', { precision: 3 })
    // when the question was put that was answered last: an older one is not taken any more
    table.bigInteger('asked').unsigned().notNullable()
  })
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.dropTableIfExists('person_passkeys')
}
