import type { Knex } from 'knex'
import { covers } from '../../core/people/rights'
import { isDatabaseAway } from '../database/connection'
import type { SiteRow } from '../sites/entity-rows'
import { hasPeople } from './people'
import type { Person } from './person'
import { sessionOf, sessionStands } from './sessions'
import { keyOf, keyStands, type SiteKey } from './site-keys'
import { type Access, ALL, accessOfPerson, sitesOfPerson } from './site-rights'

/** Who asks: without accounts anybody; otherwise a person who is signed in, somebody with a key to a site, or nobody. */
export type Asker = { open: boolean; person: Person | null; session: string | null; key: SiteKey | null }

/** What a request carries to say who sends it. */
export type Carried = { session: string | null; link: string | null; token: string | null }

export const ANYBODY: Asker = { open: true, person: null, session: null, key: null }

/** Once there are accounts there always are; until then it is looked for this often. */
const LOOK_EVERY_MS = 1000
const looked = new WeakMap<Knex, { any: boolean; at: number }>()

/** Whether this Hallway asks people to sign in. A database that is away leaves it at what was known last. */
export async function hasAccounts(knex: Knex): Promise<boolean> {
  const last = looked.get(knex)
  if (last && (last.any || Date.now() - last.at < LOOK_EVERY_MS)) return last.any
  try {
    const any = await hasPeople(knex)
    looked.set(knex, { any, at: Date.now() })
    return any
  } catch (error) {
    if (last && isDatabaseAway(error)) return last.any
    throw error
  }
}

/** Who a request is from, where there are accounts, and what they may do on the site it is about, with its row where that was asked along. */
export async function askerOf(
  knex: Knex,
  { session, link, token }: Carried,
  siteId?: string,
): Promise<{ who: Asker; access: Access | null; row: SiteRow | null }> {
  const signedIn = session ? await sessionOf(knex, session, siteId) : null
  const key = token ? await keyOf(knex, token, 'token') : link ? await keyOf(knex, link, 'link') : null
  const who: Asker = { open: false, person: signedIn?.person ?? null, session: signedIn?.session ?? null, key }
  const access = siteId === undefined ? null : moreOf(signedIn?.access ?? null, key, siteId)
  return { who, access, row: signedIn?.site ?? null }
}

/** Whoever asked, as they stand by now: what they carried may have ended since, or been taken back, and so may their rights. */
export async function askerStands(knex: Knex, { session, key, ...who }: Asker): Promise<Asker> {
  const person = session === null ? null : await sessionStands(knex, session)
  return { ...who, session, person, key: key && (await keyStands(knex, key.id)) }
}

/** What somebody may do on a site. */
export async function accessTo(knex: Knex, { open, person, key }: Asker, siteId: string): Promise<Access | null> {
  if (open) return ALL
  return moreOf(person && (await accessOfPerson(knex, person, siteId)), key, siteId)
}

/** The more of what somebody may as a person and with their key; of two that only look, the one that is kept from less. */
function moreOf(own: Access | null, key: SiteKey | null, siteId: string): Access | null {
  if (key?.site !== siteId) return own
  if (own === null) return key
  const more = own.held === key.held ? own.hides.length <= key.hides.length : covers(own.held, key.held)
  return more ? own : key
}

/** What somebody may do on each site that they may look at; null: everything on all of them. */
export async function sitesFor(knex: Knex, { open, person, key }: Asker): Promise<ReadonlyMap<string, Access> | null> {
  if (open) return null
  const own = person ? await sitesOfPerson(knex, person) : new Map<string, Access>()
  const more = own && key && moreOf(own.get(key.site) ?? null, key, key.site)
  if (more) own.set(key.site, more)
  return own
}

/** The name that stands beside what somebody changes; null where they have no name here. */
export const nameOf = ({ person, key }: Asker): string | null => person?.name ?? key?.name ?? null
