import type { Knex } from 'knex'

/** Which version each body was written as, what a change was sent as, and how much of a site is what was seen. */
export async function up(knex: Knex): Promise<void> {
  for (const table of ['entities', 'edits'])
    await knex.schema.alterTable(table, (columns) => {
      // what stands there was written by a Hallway that knew version 2
      columns.smallint('version').unsigned().notNullable().defaultTo(2)
    })
  await knex.schema.alterTable('changes', (table) => {
    table.specificType('digest', 'CHAR(64) CHARACTER SET ascii COLLATE ascii_bin')
  })
  await knex.schema.alterTable('sites', (table) => {
    table.bigInteger('grown').unsigned().notNullable().defaultTo(0)
  })
  // bytes were counted with what was seen; a comma and a line's end stand beside each in a file
  await knex.raw(
    "UPDATE sites SET grown = (SELECT COALESCE(SUM(OCTET_LENGTH(body) + 2), 0) FROM entities WHERE entities.site_id = sites.id AND list = 'observations')",
  )
  await knex.raw('UPDATE sites SET bytes = bytes - LEAST(bytes, grown)')
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw('UPDATE sites SET bytes = bytes + grown')
  await knex.schema.alterTable('sites', (table) => table.dropColumn('grown'))
  await knex.schema.alterTable('changes', (table) => table.dropColumn('digest'))
  for (const table of ['entities', 'edits'])
    await knex.schema.alterTable(table, (columns) => columns.dropColumn('version'))
}
