import type { Knex } from 'knex'
import { RIGHTS, type Right } from '../../core/people/rights'
import { DETAILS, type Detail } from '../../core/people/shown'
import { Failure } from '../failure'
import { oneByOne } from './one-by-one'
import type { Person } from './person'

/** What somebody may do on a site, and what of it they are kept from. Only who looks is kept from anything. */
export type Access = { held: Right; hides: readonly Detail[] }
export const ALL: Access = { held: 'lead', hides: [] }

/** Somebody who may do something on a site. */
export type HeldRight = Access & { person: string; name: string }

/** Details as a column holds them. */
export const hidesOf = (column: unknown): Detail[] => DETAILS.filter((each) => String(column).split(' ').includes(each))

const asRight = (held: unknown): Right | null => RIGHTS.find((each) => each === held) ?? null

/** A right as its row holds it; null where there is no such row. */
export function accessOfRow(row: { held?: unknown; hides?: unknown } | undefined): Access | null {
  const held = asRight(row?.held)
  return held && { held, hides: hidesOf(row?.hides) }
}

/** What a person may do on a site. Who runs this Hallway may do everything. */
export const accessOfPerson = async (knex: Knex, { id, admin }: Person, siteId: string): Promise<Access | null> =>
  admin ? ALL : accessOfRow(await knex('site_rights').where({ site_id: siteId, person: id }).first('held', 'hides'))

/** What a person may do on each site that they may look at; null: everything on all of them. */
export async function sitesOfPerson(knex: Knex, { id, admin }: Person): Promise<Map<string, Access> | null> {
  if (admin) return null
  const rows = await knex('site_rights').where({ person: id }).select('site_id', 'held', 'hides')
  return new Map(
    rows.flatMap((row): [string, Access][] => {
      const access = accessOfRow(row)
      return access ? [[row.site_id, access]] : []
    }),
  )
}

/** Who has a right on a site, by name. Those who run Hallway have all of them and are not listed. */
export async function rightsOn(knex: Knex, siteId: string): Promise<HeldRight[]> {
  const rows = await knex('site_rights')
    .join('people', 'people.id', 'site_rights.person')
    .where({ site_id: siteId })
    .orderBy('people.name')
    .select('site_rights.person', 'people.name', 'site_rights.held', 'site_rights.hides')
  return rows.map(({ hides, ...row }) => ({ ...row, hides: hidesOf(hides) }))
}

/** Gives a person a right on a site, or takes it away with null. Throws where nobody would be left who leads the site. */
export async function setRight(knex: Knex, siteId: string, person: string, access: Access | null): Promise<void> {
  await oneByOne(knex, async (trx) => {
    if (access !== null && !(await trx('people').where({ id: person }).whereNull('retired').first('id')))
      throw new Failure('Whoever that is has no account here, or not any more. Nothing was changed.')
    const leads: string[] = await trx('site_rights').where({ site_id: siteId, held: 'lead' }).pluck('person')
    if (access?.held !== 'lead' && leads.length === 1 && leads[0] === person)
      throw new Failure('Nobody would be left who leads this site. Let somebody else lead it first.')
    if (access === null) await trx('site_rights').where({ site_id: siteId, person }).delete()
    else await writeRight(trx, siteId, person, access)
  })
}

/** A site that is being made is led by whoever makes it. */
export const letLead = (trx: Knex.Transaction, siteId: string, person: string): Promise<void> =>
  writeRight(trx, siteId, person, ALL)

async function writeRight(trx: Knex.Transaction, siteId: string, person: string, access: Access): Promise<void> {
  const { held, hides } = access
  await trx('site_rights')
    .insert({ site_id: siteId, person, held, hides: held === 'look' ? hides.join(' ') : '' })
    .onConflict(['site_id', 'person'])
    .merge()
}
