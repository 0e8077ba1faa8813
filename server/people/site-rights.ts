import type { Knex } from 'knex'
import { RIGHTS, type Right } from '../../core/people/rights'
import { Failure } from '../failure'
import type { Person } from './person'

/** Somebody who may do something on a site. */
export type HeldRight = { person: string; name: string; held: Right }

const asRight = (held: unknown): Right | null => RIGHTS.find((each) => each === held) ?? null

/** What a person may do on a site. Who runs this Hallway may do everything. */
export async function rightOfPerson(knex: Knex, { id, admin }: Person, siteId: string): Promise<Right | null> {
  if (admin) return 'lead'
  return asRight((await knex('site_rights').where({ site_id: siteId, person: id }).first('held'))?.held)
}

/** The sites that a person may look at; null: all of them. */
export const sitesOfPerson = async (knex: Knex, { id, admin }: Person): Promise<ReadonlySet<string> | null> =>
  admin ? null : new Set(await knex('site_rights').where({ person: id }).pluck('site_id'))

/** Who has a right on a site, by name. Those who run Hallway have all of them and are not listed. */
export const rightsOn = (knex: Knex, siteId: string): Promise<HeldRight[]> =>
  knex('site_rights')
    .join('people', 'people.id', 'site_rights.person')
    .where({ site_id: siteId })
    .orderBy('people.name')
    .select('site_rights.person', 'people.name', 'site_rights.held')

/** Gives a person a right on a site, or takes it away with null. Throws where the site would be left without a lead. */
export async function setRight(knex: Knex, siteId: string, person: string, held: Right | null): Promise<void> {
  await knex.transaction(async (trx) => {
    const leads: string[] = await trx('site_rights')
      .where({ site_id: siteId, held: 'lead' })
      .forUpdate()
      .pluck('person')
    if (held !== 'lead' && leads.length === 1 && leads[0] === person)
      throw new Failure('A site keeps at least one lead. Make somebody else a lead first.')
    if (held === null) await trx('site_rights').where({ site_id: siteId, person }).delete()
    else await trx('site_rights').insert({ site_id: siteId, person, held }).onConflict(['site_id', 'person']).merge()
  })
}
