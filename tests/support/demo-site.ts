import type { Knex } from 'knex'
import { afterAll, beforeAll, beforeEach, inject } from 'vitest'
import { connect } from '../../server/database/connection'
import { migrate } from '../../server/database/migrate'
import { currentCopy } from '../../server/sites/copies'
import { importPlan } from '../../server/sites/sites'
import { demo } from './demo-plan'
import { makeEmptyDatabase } from './empty-database'
import { PATIENT } from './patient'

export const HAND = { by: 'Ada' }

/** A fresh copy of the demo site for each test of a file: in the database that all files share, or in one of the file's own where what others keep would count. */
export function freshSites(database: 'shared' | 'own' = 'shared') {
  const now: { knex: Knex; site: string } = { knex: undefined as never, site: '' }
  let close: () => Promise<void>
  beforeAll(async () => {
    if (database === 'own') {
      const made = await makeEmptyDatabase()
      now.knex = made.knex
      close = made.drop
    } else {
      now.knex = connect(inject('databaseUrl'), PATIENT)
      close = () => now.knex.destroy()
    }
    await migrate(now.knex)
  })
  afterAll(() => close())
  beforeEach(async () => {
    now.site = await importPlan(now.knex, HAND, demo)
  })
  return {
    now,
    async stored() {
      const found = await currentCopy(now.knex, now.site)
      if (!found) throw new Error('the site is gone')
      return found.copy
    },
  }
}
