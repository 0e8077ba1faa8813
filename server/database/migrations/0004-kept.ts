import type { Knex } from 'knex'

/** When a file was last named, so that what nothing can ask for again is let go; and how much each change did, so that History need not count. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.alterTable('files', (table) => {
    // the change since which nothing names it; null: it is named
    table.integer('dropped_place').unsigned()
    table.datetime('dropped_at', { precision: 3 })
    table.index(['dropped_place'])
  })
  await knex.schema.alterTable('changes', (table) => {
    // several observations of one cable touch one thing
    table.integer('things').unsigned().notNullable().defaultTo(0)
  })
  await markOlder(knex)
}

/** What stands in the database from before these columns, or comes from a backup of then. */
export async function markOlder(knex: Knex): Promise<void> {
  // what no floor and no place names was left by a change that was refused, or was replaced
  await knex.raw(
    `UPDATE files JOIN sites ON sites.id = files.site_id
     SET files.dropped_place = sites.place, files.dropped_at = UTC_TIMESTAMP(3)
     WHERE files.dropped_place IS NULL AND NOT EXISTS (SELECT 1 FROM entities WHERE entities.site_id = files.site_id
       AND entities.list IN ('floors', 'places') AND INSTR(entities.body, files.id) > 0)`,
  )
  await knex.raw(
    `UPDATE changes JOIN
       (SELECT site_id, place, COUNT(DISTINCT COALESCE(subject, CONCAT(list, '/', id))) AS things FROM edits GROUP BY site_id, place) AS counted
       ON counted.site_id = changes.site_id AND counted.place = changes.place
     SET changes.things = counted.things WHERE changes.things = 0`,
  )
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.alterTable('changes', (table) => table.dropColumn('things'))
  await knex.schema.alterTable('files', (table) => {
    table.dropIndex(['dropped_place'])
    table.dropColumns('dropped_place', 'dropped_at')
  })
}
