import type { Knex } from 'knex'
import { slugOf } from '../../core/plan/free-id'
import { emptyPlan, type Plan } from '../../core/plan/plan'
import type { Policy } from '../../core/plan/policy'
import { isDuplicate } from '../database/connection'
import { insertPlan } from './plan-rows'

export type SiteListing = {
  id: string
  name: string
  note: string | null
  revision: number
  runs: number
  cables: number
  devices: number
}

/** All sites with the size of each, by name. */
export async function listSites(knex: Knex): Promise<SiteListing[]> {
  const count = (table: string) =>
    knex(table)
      .count('*')
      .whereRaw('?? = ??', [`${table}.site_id`, 'sites.id'])
  return knex('sites')
    .select('id', 'name', 'note', 'revision', {
      runs: count('runs'),
      cables: count('cables'),
      devices: count('devices'),
    })
    .orderBy('name')
}

export async function siteExists(knex: Knex, siteId: string): Promise<boolean> {
  return (await knex('sites').where({ id: siteId }).first('id')) !== undefined
}

/** A new, empty site. Its id is made from its name and made free by a number where need be. */
export const createSite = (knex: Knex, name: string, note?: string): Promise<string> =>
  importPlan(knex, emptyPlan({ id: slugOf(name, 'site'), name, ...(note ? { note } : {}) }))

/** Writes a plan as a new site in one transaction and answers its id. Nothing is ever overwritten: a taken id gets a number. */
export async function importPlan(knex: Knex, plan: Plan): Promise<string> {
  for (let attempt = 0; ; attempt += 1) {
    const id = await freeId(knex, plan.site.id)
    try {
      await knex.transaction((trx) => insertPlan(trx, { ...plan, site: { ...plan.site, id } }))
      return id
    } catch (error) {
      // somebody took the same id in between
      if (!isDuplicate(error) || attempt >= 5) throw error
    }
  }
}

async function freeId(knex: Knex, wanted: string): Promise<string> {
  const stem = wanted.slice(0, 58)
  for (let number = 1; ; number += 1) {
    const id = number === 1 ? wanted : `${stem}-${number}`
    if (!(await siteExists(knex, id))) return id
  }
}

/** Changes some of what a site goes by. Answers false where somebody changed the site since `base`. */
export async function savePolicy(knex: Knex, siteId: string, base: number, choice: Partial<Policy>): Promise<boolean> {
  return knex.transaction(async (trx) => {
    const site = await trx('sites').where({ id: siteId, revision: base }).forUpdate().first('policy')
    if (!site) return false
    const policy: Policy = { ...site.policy, ...choice }
    await trx('sites')
      .where({ id: siteId })
      .update({ policy: JSON.stringify(policy), revision: base + 1 })
    return true
  })
}
