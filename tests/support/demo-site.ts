import type { Knex } from 'knex'
import { afterAll, beforeAll, beforeEach, inject } from 'vitest'
import { connect } from '../../server/database/connection'
import { migrate } from '../../server/database/migrate'
import { currentCopy } from '../../server/sites/copies'
import { importPlan } from '../../server/sites/sites'
import { demo } from './demo-plan'

export const HAND = { by: 'Ada' }

/** A database for the tests of one file, with a fresh copy of the demo site for each of them. */
export function freshSites() {
  const now: { knex: Knex; site: string } = { knex: undefined as never, site: '' }
  beforeAll(async () => {
    now.knex = connect(inject('databaseUrl'))
    await migrate(now.knex)
  })
  afterAll(() => now.knex.destroy())
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
