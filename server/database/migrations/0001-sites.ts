import type { Knex } from 'knex'

/** A site and everything in it. Ids are the plan file's own, so every key starts with the site's. */
export async function up(knex: Knex): Promise<void> {
  const id = (table: Knex.CreateTableBuilder, name: string) => table.string(name, 64)
  const inSite = (table: Knex.CreateTableBuilder) => {
    id(table, 'site_id').notNullable().references('id').inTable('sites').onDelete('CASCADE')
  }
  const position = (table: Knex.CreateTableBuilder) => table.integer('position').unsigned().notNullable()
  const revision = (table: Knex.CreateTableBuilder) => table.integer('revision').unsigned().notNullable().defaultTo(1)

  await knex.schema.createTable('sites', (table) => {
    id(table, 'id').primary()
    table.string('name', 120).notNullable()
    table.text('note')
    table.json('policy').notNullable()
    revision(table)
    table.timestamp('created_at').notNullable().defaultTo(knex.fn.now())
  })
  await knex.schema.createTable('places', (table) => {
    inSite(table)
    id(table, 'id').notNullable()
    position(table)
    table.string('name', 120).notNullable()
    table.boolean('mains').notNullable()
    table.text('note')
    table.primary(['site_id', 'id'])
  })
  await knex.schema.createTable('devices', (table) => {
    inSite(table)
    id(table, 'id').notNullable()
    position(table)
    table.string('name', 120).notNullable()
    table.string('kind', 24).notNullable()
    id(table, 'place_id')
    table.text('note')
    table.primary(['site_id', 'id'])
    table.foreign(['site_id', 'place_id']).references(['site_id', 'id']).inTable('places')
  })
  await knex.schema.createTable('ports', (table) => {
    inSite(table)
    id(table, 'device_id').notNullable()
    id(table, 'id').notNullable()
    position(table)
    table.json('spec').notNullable()
    table.primary(['site_id', 'device_id', 'id'])
    table.foreign(['site_id', 'device_id']).references(['site_id', 'id']).inTable('devices').onDelete('CASCADE')
  })
  await knex.schema.createTable('cable_kinds', (table) => {
    inSite(table)
    id(table, 'id').notNullable()
    position(table)
    table.json('spec').notNullable()
    table.primary(['site_id', 'id'])
  })
  await knex.schema.createTable('cables', (table) => {
    inSite(table)
    id(table, 'id').notNullable()
    position(table)
    table.string('tag', 24).notNullable()
    id(table, 'kind_id')
    id(table, 'supplied_with')
    table.double('length').notNullable()
    table.string('construction', 16).notNullable()
    table.string('standing', 16).notNullable()
    table.boolean('one_way').notNullable()
    table.json('ends').notNullable()
    table.text('note')
    table.primary(['site_id', 'id'])
    table.unique(['site_id', 'tag'])
    table.foreign(['site_id', 'kind_id']).references(['site_id', 'id']).inTable('cable_kinds')
    table.foreign(['site_id', 'supplied_with']).references(['site_id', 'id']).inTable('devices')
  })
  await knex.schema.createTable('evidence', (table) => {
    inSite(table)
    id(table, 'cable_id').notNullable()
    position(table)
    table.json('body').notNullable()
    table.primary(['site_id', 'cable_id', 'position'])
    table.foreign(['site_id', 'cable_id']).references(['site_id', 'id']).inTable('cables').onDelete('CASCADE')
  })
  await knex.schema.createTable('runs', (table) => {
    inSite(table)
    id(table, 'id').notNullable()
    position(table)
    table.string('tag', 24).notNullable()
    table.string('name', 120)
    for (const end of ['from', 'to']) {
      id(table, `${end}_device`).notNullable()
      id(table, `${end}_port`).notNullable()
    }
    table.double('route_length').notNullable()
    table.text('route_note')
    table.text('note')
    table.json('proofs').notNullable()
    revision(table)
    table.primary(['site_id', 'id'])
    table.unique(['site_id', 'tag'])
    for (const end of ['from', 'to']) {
      table
        .foreign(['site_id', `${end}_device`, `${end}_port`])
        .references(['site_id', 'device_id', 'id'])
        .inTable('ports')
    }
  })
  await knex.schema.createTable('run_leads', (table) => {
    inSite(table)
    id(table, 'run_id').notNullable()
    position(table)
    id(table, 'cable_id').notNullable()
    table.boolean('reversed').notNullable()
    table.primary(['site_id', 'run_id', 'position'])
    // a cable lies in one run only
    table.unique(['site_id', 'cable_id'])
    table.foreign(['site_id', 'run_id']).references(['site_id', 'id']).inTable('runs').onDelete('CASCADE')
    table.foreign(['site_id', 'cable_id']).references(['site_id', 'id']).inTable('cables')
  })
  await knex.schema.createTable('needs', (table) => {
    inSite(table)
    id(table, 'id').notNullable()
    position(table)
    table.string('kind', 16).notNullable()
    id(table, 'from_device').notNullable()
    id(table, 'to_device').notNullable()
    table.json('body').notNullable()
    table.primary(['site_id', 'id'])
    for (const end of ['from', 'to']) {
      table
        .foreign(['site_id', `${end}_device`])
        .references(['site_id', 'id'])
        .inTable('devices')
    }
  })
  await knex.schema.createTable('need_pins', (table) => {
    inSite(table)
    id(table, 'need_id').notNullable()
    position(table)
    id(table, 'run_id').notNullable()
    table.primary(['site_id', 'need_id', 'position'])
    table.foreign(['site_id', 'need_id']).references(['site_id', 'id']).inTable('needs').onDelete('CASCADE')
    table.foreign(['site_id', 'run_id']).references(['site_id', 'id']).inTable('runs').onDelete('CASCADE')
  })
  // what was deleted, kept so that it can be put back
  await knex.schema.createTable('removals', (table) => {
    inSite(table)
    table.string('token', 36).primary()
    table.json('body').notNullable()
    table.timestamp('removed_at').notNullable().defaultTo(knex.fn.now())
  })
}

export async function down(knex: Knex): Promise<void> {
  for (const table of [
    'removals',
    'need_pins',
    'needs',
    'run_leads',
    'runs',
    'evidence',
    'cables',
    'cable_kinds',
    'ports',
    'devices',
    'places',
    'sites',
  ]) {
    await knex.schema.dropTableIfExists(table)
  }
}
