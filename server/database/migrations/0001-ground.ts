import type { Knex } from 'knex'

/**
 * Sites, what they hold and how they came to it. An entity lies as the JSON of its plan file, beside the few keys that the database itself keeps unique:
 * ids, and tags in the folded form that the core computes. Both compare byte by byte, so that the reader and the database never disagree.
 * The log holds every change with each entity before and after it.
 */
export async function up(knex: Knex): Promise<void> {
  const key = (table: Knex.CreateTableBuilder, name: string, length = 64) =>
    table.specificType(name, `VARCHAR(${length}) CHARACTER SET ascii COLLATE ascii_bin`)
  const inSite = (table: Knex.CreateTableBuilder) => {
    key(table, 'site_id').notNullable()
    table.foreign('site_id').references('id').inTable('sites').onDelete('CASCADE')
  }
  await knex.schema.createTable('settings', (table) => {
    key(table, 'name').primary()
    table.text('value').notNullable()
  })
  await knex.schema.createTable('sites', (table) => {
    key(table, 'id').primary()
    // another one for a site that a backup brings back: copies made of it before are of another site
    key(table, 'identity', 36).notNullable()
    table.string('name', 120).notNullable()
    table.text('note')
    table.boolean('put_away').notNullable().defaultTo(false)
    // the place of its last change
    table.integer('place').unsigned().notNullable()
    table.bigInteger('bytes').unsigned().notNullable()
    table.datetime('created_at', { precision: 3 }).notNullable().defaultTo(knex.fn.now(3))
  })
  await knex.schema.createTable('entities', (table) => {
    inSite(table)
    key(table, 'list', 16).notNullable()
    key(table, 'id').notNullable()
    // fractional, so that something is put between two without touching either
    key(table, 'rank', 250).notNullable()
    table.integer('revision').unsigned().notNullable()
    table.specificType('tag_key', 'VARCHAR(500) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin')
    table.json('body').notNullable()
    table.primary(['site_id', 'list', 'id'])
    table.unique(['site_id', 'list', 'tag_key'])
    table.index(['site_id', 'list', 'rank'])
  })
  await knex.schema.createTable('changes', (table) => {
    inSite(table)
    table.integer('place').unsigned().notNullable()
    key(table, 'id').notNullable()
    table.datetime('at', { precision: 3 }).notNullable()
    table.string('by_name', 120).notNullable()
    key(table, 'name', 40).notNullable()
    table.json('about').notNullable()
    key(table, 'undoes')
    table.primary(['site_id', 'place'])
    table.unique(['id', 'site_id'])
  })
  await knex.schema.createTable('edits', (table) => {
    inSite(table)
    table.integer('place').unsigned().notNullable()
    table.integer('seq').unsigned().notNullable()
    key(table, 'list', 16).notNullable()
    key(table, 'id').notNullable()
    // null: it was taken away
    table.json('value')
    // it was put in front of something, or to the end where that is null
    table.boolean('moved').notNullable()
    key(table, 'before_id')
    // what it was: null, it was new
    table.json('was')
    table.boolean('was_moved').notNullable()
    key(table, 'was_before_id')
    table.integer('back_seq').unsigned().notNullable()
    // what an observation is about, as list/id: the history of a thing holds what was seen of it
    key(table, 'subject', 90)
    table.primary(['site_id', 'place', 'seq'])
    table.index(['site_id', 'list', 'id', 'place'])
    table.index(['site_id', 'subject', 'place'])
  })
  for (const { name, list, columns } of views) await knex.raw(viewOf(name, list, columns))
}

type View = { name: string; list: string; columns: Readonly<Record<string, string>> }

/** Plain columns for people who bring their own reporting. Read them; whatever is written goes through Hallway. */
const views: readonly View[] = [
  {
    name: 'report_cables',
    list: 'cables',
    columns: {
      tag: '$.tag',
      kind: '$.kind',
      first_connector: '$.ends[0].connector',
      first_gender: '$.ends[0].gender',
      second_connector: '$.ends[1].connector',
      second_gender: '$.ends[1].gender',
      metres: '$.length',
      construction: '$.construction',
      one_way: '$.oneWay',
      feed: '$.feed',
      awg: '$.awg',
      millimetres: '$.thickness',
      supplied_with: '$.suppliedWith',
      standing: '$.standing',
      note: '$.note',
    },
  },
  {
    name: 'report_runs',
    list: 'runs',
    columns: {
      tag: '$.tag',
      name: '$.name',
      from_device: '$.from.device',
      from_port: '$.from.port',
      to_device: '$.to.device',
      to_port: '$.to.port',
      first_lead: '$.leads[0].cable',
      second_lead: '$.leads[1].cable',
      third_lead: '$.leads[2].cable',
      metres: '$.route.length',
      note: '$.note',
    },
  },
  {
    name: 'report_devices',
    list: 'devices',
    columns: { name: '$.name', kind: '$.kind', place: '$.place', bus_powered: '$.busPowered', note: '$.note' },
  },
  {
    name: 'report_needs',
    list: 'needs',
    columns: {
      name: '$.name',
      kind: '$.kind',
      from_device: '$.from',
      to_device: '$.to',
      priority: '$.priority',
      bits_per_second: '$.rate',
      watts: '$.watts',
      width: '$.mode.width',
      height: '$.mode.height',
      refresh: '$.mode.refresh',
      note: '$.note',
    },
  },
  {
    name: 'report_observations',
    list: 'observations',
    columns: {
      at: '$.at',
      by_name: '$.by',
      kind: '$.kind',
      basis: '$.basis',
      cable: '$.subject.cable',
      run: '$.subject.run',
      device: '$.subject.device',
      controller: '$.where.controller',
      instrument: '$.instrument.name',
      simulated: '$.instrument.simulated',
      tried: '$.tried',
      came_up: '$.cameUp',
      seconds: '$.seconds',
      measure: '$.measure',
      bits_per_second: '$.rate',
      watts: '$.watts',
      volts: '$.volts',
      felt: '$.felt',
      marked: '$.grade',
      retracts: '$.retracts',
      reason: '$.reason',
      note: '$.note',
    },
  },
]

function viewOf(name: string, list: string, columns: View['columns']): string {
  const shown = Object.entries(columns).map(([column, path]) => `JSON_VALUE(body, '${path}') AS \`${column}\``)
  return `CREATE OR REPLACE VIEW ${name} AS SELECT site_id, id, revision, ${shown.join(', ')} FROM entities WHERE list = '${list}'`
}

export async function down(knex: Knex): Promise<void> {
  for (const { name } of views) await knex.raw(`DROP VIEW IF EXISTS ${name}`)
  for (const table of ['edits', 'changes', 'entities', 'sites', 'settings']) await knex.schema.dropTableIfExists(table)
}
