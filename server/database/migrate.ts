import { setTimeout as wait } from 'node:timers/promises'
import type { Knex } from 'knex'
import * as sites from './migrations/0001-sites'
import * as inside from './migrations/0002-inside-and-surroundings'
import * as thickness from './migrations/0003-thickness'
import * as bench from './migrations/0004-bench'

type Migration = { name: string; up: (knex: Knex) => Promise<void>; down: (knex: Knex) => Promise<void> }

/** An explicit list, so that migrations run from the build as they do from source. */
const migrations: readonly Migration[] = [
  { name: '0001-sites', ...sites },
  { name: '0002-inside-and-surroundings', ...inside },
  { name: '0003-thickness', ...thickness },
  { name: '0004-bench', ...bench },
]

const migrationSource: Knex.MigrationSource<Migration> = {
  getMigrations: async () => [...migrations],
  getMigrationName: (migration) => migration.name,
  getMigration: async (migration) => migration,
}

/** Brings the database up to this version. Where another process is at it, waits for that one. */
export async function migrate(knex: Knex, tries = 40): Promise<void> {
  try {
    await knex.migrate.latest({ migrationSource })
  } catch (error) {
    const locked = error instanceof Error && /already locked/i.test(error.message)
    if (!locked || tries <= 1) throw error
    await wait(250)
    await migrate(knex, tries - 1)
  }
}
