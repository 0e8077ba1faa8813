import { describe, expect, it } from 'vitest'
import { withEmptyDatabase } from '../../tests/support/empty-database'
import { migrate } from './migrate'

describe('a database', () => {
  it('of the layout before the log is refused in words that say how to carry it over, and left as it is', () =>
    withEmptyDatabase(async (knex) => {
      await knex.schema.createTable('sites', (table) => table.string('id'))
      await knex.schema.createTable('removals', (table) => table.string('token'))
      await expect(migrate(knex)).rejects.toThrow(/earlier Hallway[\s\S]*export SITE/)
      expect(await knex.schema.hasTable('entities')).toBe(false)
    }))
  it('of a newer Hallway is refused in words that say what to do, and left as it is', () =>
    withEmptyDatabase(async (knex) => {
      await migrate(knex)
      await knex('knex_migrations').insert({ name: '9999-of-tomorrow', batch: 2, migration_time: new Date() })
      await expect(migrate(knex)).rejects.toThrow(/newer Hallway[\s\S]*hallway restore FILE/)
      expect(await knex('knex_migrations').where({ name: '9999-of-tomorrow' })).toHaveLength(1)
    }))
  it('is brought up to date once, however many processes begin at the same moment', () =>
    withEmptyDatabase(async (knex) => {
      await Promise.all([migrate(knex), migrate(knex)])
      expect(await knex('knex_migrations').select('name')).toEqual([
        { name: '0001-ground' },
        { name: '0002-files' },
        { name: '0003-versions' },
        { name: '0004-kept' },
        { name: '0005-along' },
        { name: '0006-series' },
        { name: '0007-handovers' },
        { name: '0008-people' },
        { name: '0009-passkeys' },
        { name: '0010-guessing' },
      ])
    }))
})
