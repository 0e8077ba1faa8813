import type { Knex } from 'knex'
import { SITE_COLUMNS, type SiteRow, siteRowOf } from '../sites/entity-rows'
import type { Person } from './person'
import { digestOf, newSecret } from './secret'
import { type Access, ALL, accessOfRow } from './site-rights'

const DAY_MS = 86_400_000
/** A browser that asked nothing for so long is signed out. */
export const IDLE_DAYS = 14
/** However busy: after so long it signs in again. */
export const LONGEST_DAYS = 60
/** That a session is in use is written down no more often. */
const SEEN_EVERY_MS = 300_000

export type Session = { digest: string; device: string; began: string; seen: string }

/** Signs a browser in. Answers what it is to carry. */
export async function beginSession(knex: Knex, { id }: Pick<Person, 'id'>, device: string): Promise<string> {
  const { text, digest } = newSecret()
  const now = new Date()
  await knex('person_sessions').insert({ digest, person: id, device: device.slice(0, 120), began: now, seen: now })
  return text
}

/** Of the site that was asked about, beside columns of the same names. */
const SITE_AS = SITE_COLUMNS.map((column) => `sites.${column} as site_${column}`)

/** Who a browser is signed in as. `access` is what they may do on the site that was asked about, `site` the row of it. */
export type SignedInAs = { person: Person; session: string; access: Access | null; site: SiteRow | null }

/** Sessions that have not ended by themselves, of people who have not left. */
const standing = (knex: Knex): Knex.QueryBuilder =>
  knex('person_sessions')
    .join('people', 'people.id', 'person_sessions.person')
    .where('person_sessions.seen', '>', new Date(Date.now() - IDLE_DAYS * DAY_MS))
    .where('person_sessions.began', '>', new Date(Date.now() - LONGEST_DAYS * DAY_MS))
    .whereNull('people.retired')

/** Who is signed in by a session as it stands by now; null where it has ended. That it is asked for keeps nobody signed in. */
export async function sessionStands(knex: Knex, digest: string): Promise<Person | null> {
  const row = await standing(knex).where({ digest }).first('people.id', 'people.name', 'people.admin')
  return row ? { id: row.id, name: row.name, admin: Boolean(row.admin) } : null
}

/** Who a browser is signed in as, by what it carries; null where that has ended or is made up. One question, as every page asks it. */
export async function sessionOf(knex: Knex, text: string, siteId = ''): Promise<SignedInAs | null> {
  const digest = digestOf(text)
  const row = await standing(knex)
    .leftJoin('site_rights', (join) =>
      join.on('site_rights.person', 'people.id').andOnVal('site_rights.site_id', siteId),
    )
    .leftJoin('sites', (join) => join.onVal('sites.id', siteId))
    .where('person_sessions.digest', digest)
    .first(
      'people.id',
      'people.name',
      'people.admin',
      'person_sessions.seen',
      'site_rights.held',
      'site_rights.hides',
      ...SITE_AS,
    )
  if (!row) return null
  const now = Date.now()
  // a date without its zone is in that of the database, which is UTC
  if (now - Date.parse(`${row.seen}Z`) > SEEN_EVERY_MS)
    await knex('person_sessions')
      .where({ digest })
      .update({ seen: new Date(now) })
  const person = { id: row.id, name: row.name, admin: Boolean(row.admin) }
  const site = siteRowOf(Object.fromEntries(SITE_COLUMNS.map((column) => [column, row[`site_${column}`]])))
  return { person, session: digest, access: person.admin ? ALL : accessOfRow(row), site }
}

/** What opens an account anew is changed soon after signing in, or not at all: an open browser may have somebody else before it. */
const LATELY_MS = 900_000

/** Whether somebody signed in a short while ago. */
export const beganLately = async (knex: Knex, digest: string): Promise<boolean> =>
  (await knex('person_sessions')
    .where({ digest })
    .where('began', '>', new Date(Date.now() - LATELY_MS))
    .first('digest')) !== undefined

/** Where a person is signed in, the latest first. */
export const sessionsOf = (knex: Knex, { id }: Pick<Person, 'id'>): Promise<Session[]> =>
  knex('person_sessions').where({ person: id }).orderBy('seen', 'desc').select('digest', 'device', 'began', 'seen')

/** Signs a person out of one browser. One of somebody else's is left alone. */
export const endSession = (knex: Knex, { id }: Pick<Person, 'id'>, digest: string): Promise<number> =>
  knex('person_sessions').where({ person: id, digest }).delete()

/** Signs a person out everywhere, but for one session where it is named. */
export const endSessionsOf = (knex: Knex, person: string, except?: string): Promise<number> =>
  knex('person_sessions')
    .where({ person })
    .modify((query) => {
      if (except) query.whereNot({ digest: except })
    })
    .delete()

/** Lets go of what has ended by itself. */
export async function sweepSessions(knex: Knex): Promise<void> {
  await knex('person_sessions')
    .where('seen', '<', new Date(Date.now() - IDLE_DAYS * DAY_MS))
    .orWhere('began', '<', new Date(Date.now() - LONGEST_DAYS * DAY_MS))
    .delete()
  await knex('invitations').where('until', '<', new Date()).delete()
}
