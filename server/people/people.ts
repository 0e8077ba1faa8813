import { randomUUID } from 'node:crypto'
import type { Knex } from 'knex'
import { whyNotNewName } from '../../core/people/new-name'
import { nameField } from '../../core/vocabulary/fields'
import { isDuplicate } from '../database/connection'
import { inTransaction } from '../database/transaction'
import { Failure } from '../failure'
import type { Login } from './company'
import { oneByOne } from './one-by-one'
import { hashPassword, whyNotPassword } from './passwords'
import type { Person } from './person'
import { digestOf, newSecret } from './secret'
import { endSessionsOf } from './sessions'
import { endKeysOf, handKeysOn, keysByMaker, type MadeKey } from './site-keys'

export type ListedPerson = Person & { retired: string | null; ready: boolean; seen: string | null }

const DAY_MS = 86_400_000
/** So long an invitation can be used. */
export const INVITATION_DAYS = 7

/** Whether there are accounts here: without any, whoever reaches this Hallway may do everything. */
export const hasPeople = async (knex: Knex): Promise<boolean> =>
  (await knex('people').whereNull('retired').first('id')) !== undefined

/** Everybody who ever had an account, by name. */
export async function listPeople(knex: Knex): Promise<ListedPerson[]> {
  const seen = knex('person_sessions').max('seen').whereRaw('?? = ??', ['person_sessions.person', 'people.id'])
  const login = knex('person_logins').first('person').whereRaw('?? = ??', ['person_logins.person', 'people.id'])
  const rows: (Person & Record<'retired' | 'password' | 'seen' | 'login', string | null>)[] = await knex('people')
    .orderBy('name')
    .select('id', 'name', 'admin', 'retired', 'password', { seen, login })
  return rows.map(({ admin, password, login, ...row }) => ({
    ...row,
    admin: Boolean(admin),
    ready: password !== null || login !== null,
  }))
}

/** A person by name, in whatever case it is written; null where there is none, or who left. */
export async function personCalled(knex: Knex, name: string): Promise<Person | null> {
  const row = await knex('people').where({ name }).whereNull('retired').first('id', 'name', 'admin')
  return row ? { id: row.id, name: row.name, admin: Boolean(row.admin) } : null
}

/** Makes an account. The first one is of an admin. Throws where the name is somebody's, or was. */
export async function addPerson(knex: Knex, told: { name: string; admin?: boolean }): Promise<Person> {
  const name = nameField.safeParse(told.name)
  if (!name.success) throw new Failure('A name has 1 to 120 letters.')
  const why = whyNotNewName(name.data)
  if (why) throw new Failure(why)
  const person = { id: randomUUID(), name: name.data, admin: told.admin === true || !(await hasPeople(knex)) }
  try {
    await knex('people').insert({ ...person, made: new Date() })
  } catch (error) {
    if (isDuplicate(error))
      throw new Failure(`${name.data} has an account here, or had one. A name is never given to somebody else.`)
    throw error
  }
  return person
}

/** A word that lets a person choose a password, once; the one before it ends. */
export async function invite(knex: Knex, { id }: Pick<Person, 'id'>): Promise<string> {
  const { text, digest } = newSecret()
  await inTransaction(knex, async (trx) => {
    await trx('invitations').where({ person: id }).delete()
    await trx('invitations').insert({ digest, person: id, until: new Date(Date.now() + INVITATION_DAYS * DAY_MS) })
  })
  return text
}

/** Who an invitation is for; null where it was used, has ended or never was one. */
export async function invited(knex: Knex, text: string): Promise<Person | null> {
  const row = await knex('invitations')
    .join('people', 'people.id', 'invitations.person')
    .where('invitations.digest', digestOf(text))
    .where('invitations.until', '>', new Date())
    .whereNull('people.retired')
    .first('people.id', 'people.name', 'people.admin')
  return row ? { ...row, admin: Boolean(row.admin) } : null
}

/** What opens an account. */
const WAYS_IN = ['person_sessions', 'person_logins', 'person_passkeys', 'invitations'] as const

/** Begins an account anew: whatever opened it so far opens it no longer. Whoever takes it up gives it the way in that is then its only one. */
async function beginAnew(trx: Knex.Transaction, id: string): Promise<void> {
  await trx('people').where({ id }).update({ password: null })
  for (const table of WAYS_IN) await trx(table).where({ person: id }).delete()
}

/** Takes an invitation up with a password. Answers why not, or null. */
export async function takeUp(knex: Knex, text: string, password: string): Promise<string | null> {
  const person = await invited(knex, text)
  if (!person) return GONE
  const why = await whyNotPassword(password, person.name)
  if (why) return why
  const kept = await hashPassword(password)
  return inTransaction(knex, async (trx) => {
    if (!(await usedUp(trx, text))) return GONE
    await beginAnew(trx, person.id)
    await trx('people').where({ id: person.id }).update({ password: kept })
    return null
  })
}
/** Uses an invitation up; of two who take up the same one it is there for the first. */
const usedUp = async (trx: Knex.Transaction, text: string): Promise<boolean> =>
  (await trx('invitations')
    .where({ digest: digestOf(text) })
    .delete()) > 0

const GONE = 'This invitation was used or has ended. Ask for a new one.'

/** Who signs in at the company's under that name; null where nobody here is known by it. */
export async function personOfLogin(knex: Knex, { issuer, subject }: Login): Promise<Person | null> {
  const row = await knex('person_logins')
    .join('people', 'people.id', 'person_logins.person')
    .where({ issuer, subject })
    .whereNull('people.retired')
    .first('people.id', 'people.name', 'people.admin')
  return row ? { ...row, admin: Boolean(row.admin) } : null
}

/** Lets somebody in by the company's sign-in as well, at the terminal; what they were known by there before opens nothing more, and whoever came in by it is signed out. */
export async function setLogin(knex: Knex, { id }: Pick<Person, 'id'>, login: Login): Promise<void> {
  await inTransaction(knex, async (trx) => {
    const known = await trx('person_logins').where({ person: id }).select('issuer', 'subject')
    if (known.length === 1 && known[0].issuer === login.issuer && known[0].subject === login.subject) return
    await trx('person_logins').where({ person: id }).delete()
    await trx('person_logins').insert({ ...login, person: id })
    await endSessionsOf(trx, id)
  })
}

/** Takes an invitation up by signing in at the company's. Answers who that is, or why not. */
export async function takeUpByLogin(knex: Knex, text: string, login: Login): Promise<Person | string> {
  const person = await invited(knex, text)
  if (!person) return GONE
  const other = await personOfLogin(knex, login)
  if (other && other.id !== person.id)
    return `At the company's you are known as ${other.name}, who has an account here.`
  return inTransaction(knex, async (trx) => {
    if (!(await usedUp(trx, text))) return GONE
    await beginAnew(trx, person.id)
    await trx('person_logins').insert({ ...login, person: person.id })
    return person
  })
}

/** Chooses another password for somebody who has shown that they know the one so far. Answers why not, or null. All other sessions of theirs end. */
export async function changePassword(
  knex: Knex,
  person: Person,
  { next, session }: { next: string; session: string },
): Promise<string | null> {
  const why = await whyNotPassword(next, person.name)
  if (why) return why
  const kept = await hashPassword(next)
  await inTransaction(knex, async (trx) => {
    await trx('people').where({ id: person.id }).update({ password: kept })
    await endSessionsOf(trx, person.id, session)
  })
  return null
}

/** Sets a password at the terminal, where whoever runs Hallway may do everything. */
export async function setPassword(knex: Knex, person: Person, password: string): Promise<void> {
  const why = await whyNotPassword(password, person.name)
  if (why) throw new Failure(why)
  const kept = await hashPassword(password)
  await inTransaction(knex, async (trx) => {
    await beginAnew(trx, person.id)
    await trx('people').where({ id: person.id }).update({ password: kept })
  })
}

/**
 * Ends an account: its sessions, its rights and its invitations, and the links and tokens that it made, unless they are handed on to somebody. Answers those. The
 * name stays in the history. Throws where nobody would be left to lead.
 */
export async function retire(
  knex: Knex,
  { id }: Pick<Person, 'id'>,
  handTo: Pick<Person, 'id' | 'name'> | null = null,
): Promise<MadeKey[]> {
  return oneByOne(knex, async (trx) => {
    await someoneElseIsAdmin(trx, id)
    await someoneElseLeads(trx, id)
    await trx('people').where({ id }).update({ retired: new Date(), admin: false })
    await beginAnew(trx, id)
    await trx('site_rights').where({ person: id }).delete()
    const keys = (await keysByMaker(trx)).get(id) ?? []
    await (handTo ? handKeysOn(trx, id, handTo) : endKeysOf(trx, id))
    return keys
  })
}

/**
 * Makes somebody an admin of this Hallway, or no longer one. Throws where none would be left. Who becomes one signs in anew: a session that began with less is
 * not one that may do everything.
 */
export async function setAdmin(knex: Knex, { id }: Pick<Person, 'id'>, admin: boolean): Promise<void> {
  await oneByOne(knex, async (trx) => {
    if (!admin) await someoneElseIsAdmin(trx, id)
    const changed = await trx('people').where({ id, admin: !admin }).whereNull('retired').update({ admin })
    if (admin && changed > 0) await endSessionsOf(trx, id)
  })
}

async function someoneElseIsAdmin(trx: Knex.Transaction, id: string): Promise<void> {
  const admins = await trx('people').where({ admin: true }).whereNull('retired').select('id')
  if (admins.every((each) => each.id === id))
    throw new Failure('Nobody would be left who runs this Hallway. Make somebody else an admin first.')
}

/** A site whose only lead goes is led by the admins; with none of its own it would be forgotten. */
async function someoneElseLeads(trx: Knex.Transaction, id: string): Promise<void> {
  const led = await trx('site_rights').where({ person: id, held: 'lead' }).pluck('site_id')
  for (const site of led) {
    const others = await trx('site_rights').where({ site_id: site, held: 'lead' }).whereNot({ person: id }).first()
    if (!others) {
      const { name } = await trx('sites').where({ id: site }).first('name')
      throw new Failure(`Nobody would be left who leads ${name}. Let somebody else lead it first.`)
    }
  }
}
