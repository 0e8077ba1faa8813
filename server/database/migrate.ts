import { setTimeout as wait } from 'node:timers/promises'
import type { Knex } from 'knex'
import { Failure } from '../failure'
import * as ground from './migrations/0001-ground'
import * as files from './migrations/0002-files'
import * as versions from './migrations/0003-versions'
import * as kept from './migrations/0004-kept'
import * as along from './migrations/0005-along'
import * as series from './migrations/0006-series'
import * as handovers from './migrations/0007-handovers'
import * as people from './migrations/0008-people'
import * as passkeys from './migrations/0009-passkeys'
import * as guessing from './migrations/0010-guessing'

type Migration = { name: string; up: (knex: Knex) => Promise<void>; down: (knex: Knex) => Promise<void> }

/** An explicit list, so that migrations run from the build as they do from source. */
const migrations: readonly Migration[] = [
  { name: '0001-ground', ...ground },
  { name: '0002-files', ...files },
  { name: '0003-versions', ...versions },
  { name: '0004-kept', ...kept },
  { name: '0005-along', ...along },
  { name: '0006-series', ...series },
  { name: '0007-handovers', ...handovers },
  { name: '0008-people', ...people },
  { name: '0009-passkeys', ...passkeys },
  { name: '0010-guessing', ...guessing },
]

const migrationSource: Knex.MigrationSource<Migration> = {
  getMigrations: async () => [...migrations],
  getMigrationName: (migration) => migration.name,
  getMigration: async (migration) => migration,
}

/** A table that only the layout before the log had. */
const OLD_TABLE = 'removals'
const OLD_LAYOUT = `This database was made by an earlier Hallway, which kept sites in another way. Nothing of it was read or changed. To carry it over:
  1. with the earlier Hallway, write each site to a file: ./hallway export SITE > SITE.json
  2. give this one an empty database: move .hallway/database away, or let HALLWAY_DATABASE_URL name another
  3. bring each file in: ./hallway import SITE.json`

const NEWER = `This database was brought up to date by a newer Hallway, which this one cannot read. Nothing of it was read or changed. Start the newer Hallway,
or give this one an empty database and restore the backup that was made before: ./hallway restore FILE`

/** Brings the database up to this version. Where another process is at it, waits for that one. A database of the old layout, or of a newer Hallway, is refused. */
export async function migrate(knex: Knex, tries = 40): Promise<void> {
  if (await knex.schema.hasTable(OLD_TABLE)) throw new Failure(OLD_LAYOUT)
  if (await isNewer(knex)) throw new Failure(NEWER)
  try {
    await knex.migrate.latest({ migrationSource })
  } catch (error) {
    // another process has just begun to do the same
    const locked = error instanceof Error && /already (locked|exists)/i.test(error.message)
    if (!locked || tries <= 1) throw error
    await wait(250)
    await migrate(knex, tries - 1)
  }
}

const DONE_TABLE = 'knex_migrations'
async function isNewer(knex: Knex): Promise<boolean> {
  if (!(await knex.schema.hasTable(DONE_TABLE))) return false
  const done: string[] = await knex(DONE_TABLE).pluck('name')
  return done.some((name) => !migrations.some((known) => known.name === name))
}
