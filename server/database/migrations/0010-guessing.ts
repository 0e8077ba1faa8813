import type { Knex } from 'knex'

/** How often somebody has guessed, counted by all web processes together; questions put to passkeys that were answered; and whose a link or a token is. */
export async function up(knex: Knex): Promise<void> {
  const ascii = (length: number) => `VARCHAR(${length}) CHARACTER SET ascii COLLATE ascii_bin`
  // laid out as the package that counts expects it
  await knex.schema.createTable('guesses', (table) => {
    table.specificType('key', ascii(255)).notNullable().primary()
    table.integer('points').notNullable().defaultTo(0)
    table.bigInteger('expire').unsigned()
  })
  await knex.schema.createTable('used_questions', (table) => {
    table.specificType('digest', ascii(64)).notNullable().primary()
    // until then it would be taken again, by the clock of the database
    table.bigInteger('until').unsigned().notNullable().index()
  })
  await knex.schema.alterTable('person_passkeys', (table) => table.dropColumn('asked'))
  await knex.schema.alterTable('site_keys', (table) => {
    table.specificType('maker', ascii(64)).nullable().index()
    table.foreign('maker').references('id').inTable('people').onDelete('SET NULL')
  })
  await knex.raw(
    'UPDATE site_keys JOIN people ON people.name = site_keys.made_by COLLATE utf8mb4_unicode_ci SET site_keys.maker = people.id',
  )
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.alterTable('site_keys', (table) => {
    table.dropForeign('maker')
    table.dropColumn('maker')
  })
  await knex.schema.alterTable('person_passkeys', (table) => {
    table.bigInteger('asked').unsigned().notNullable().defaultTo(0)
  })
  for (const table of ['used_questions', 'guesses']) await knex.schema.dropTableIfExists(table)
}
