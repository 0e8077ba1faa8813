import { randomUUID } from 'node:crypto'
import type { Knex } from 'knex'
import { whyNotNewName } from '../../core/people/new-name'
import type { Right } from '../../core/people/rights'
import type { Detail } from '../../core/people/shown'
import { Failure } from '../failure'
import { digestOf, newSecret } from './secret'
import { hidesOf } from './site-rights'

/** What opens one site to somebody without an account: a link a client looks with, or a token that a script or an instrument carries. */
export const KEY_SORTS = ['link', 'token'] as const
export type KeySort = (typeof KEY_SORTS)[number]

export type SiteKey = { id: string; site: string; name: string; sort: KeySort; held: Right; hides: readonly Detail[] }
export type ListedKey = Omit<SiteKey, 'site'> & {
  madeBy: string
  made: string
  until: string | null
  used: string | null
  uses: number
}
type KeyToMake = Pick<SiteKey, 'name' | 'sort' | 'hides'> & {
  held: Exclude<Right, 'lead'>
  until: Date | null
  by: string
  /** Whose it is: it ends with their account. */
  maker: string | null
}

/** A key as its maker's colleagues are told of it. */
export type MadeKey = { name: string; sort: KeySort; site: string }

/** Of keys, those whose day is not over. */
const stillGood = (keys: Knex.QueryBuilder): Knex.QueryBuilder =>
  keys.where((query) => query.whereNull('until').orWhere('until', '>', new Date()))

const KEY_COLUMNS = { id: 'id', site: 'site_id', name: 'name', sort: 'sort', held: 'held', hides: 'hides' }

/** That a key was used is written down no more often. */
const USED_EVERY_MS = 60_000

/** No key is made for longer; one that is not to end says so. */
const LONGEST_YEARS = 10

/** Makes a key. What it is carried as is told this once; only its sum is kept. */
export async function makeKey(knex: Knex, siteId: string, { by, hides, ...key }: KeyToMake): Promise<string> {
  const furthest = new Date()
  furthest.setUTCFullYear(furthest.getUTCFullYear() + LONGEST_YEARS)
  if (key.until && key.until > furthest)
    throw new Failure(`Choose a day within ${LONGEST_YEARS} years, or none. Nothing was made.`)
  // it stands beside what is done with it, as a person's name does
  const why = whyNotNewName(key.name)
  if (why) throw new Failure(`${why} Nothing was made.`)
  const { text, digest } = newSecret()
  const row = { digest, id: randomUUID(), site_id: siteId, ...key, made_by: by, made: new Date() }
  await knex('site_keys').insert({ ...row, hides: key.held === 'look' ? hides.join(' ') : '' })
  return text
}

/** The key that somebody carries; null where it has ended, was taken back or is made up. A link is not good as a token, nor the other way round. */
export async function keyOf(knex: Knex, text: string, sort: KeySort): Promise<SiteKey | null> {
  const digest = digestOf(text)
  const row = await stillGood(knex('site_keys').where({ digest, sort })).first({ ...KEY_COLUMNS, used: 'used' })
  if (!row) return null
  const { used, hides, ...key } = row
  if (used === null || Date.now() - Date.parse(`${used}Z`) > USED_EVERY_MS)
    await knex('site_keys').where({ digest }).update({ used: new Date() }).increment('uses', 1)
  return { ...key, hides: hidesOf(hides) }
}

/** A key as it stands by now; null where it has ended or was taken back. */
export async function keyStands(knex: Knex, id: string): Promise<SiteKey | null> {
  const row = await stillGood(knex('site_keys').where({ id })).first(KEY_COLUMNS)
  return row ? { ...row, hides: hidesOf(row.hides) } : null
}

/** The keys of a site, the latest first. */
export async function keysOf(knex: Knex, siteId: string): Promise<ListedKey[]> {
  const rows = await knex('site_keys')
    .where({ site_id: siteId })
    .orderBy('made', 'desc')
    .select('id', 'name', 'sort', 'held', 'hides', { madeBy: 'made_by' }, 'made', 'until', 'used', 'uses')
  return rows.map(({ hides, ...row }) => ({ ...row, hides: hidesOf(hides) }))
}

/** The keys that people made and that still open something, by who made them. */
export async function keysByMaker(knex: Knex): Promise<ReadonlyMap<string, MadeKey[]>> {
  const rows: (MadeKey & { maker: string })[] = await stillGood(knex('site_keys'))
    .join('sites', 'sites.id', 'site_keys.site_id')
    .whereNotNull('maker')
    .orderBy(['sites.name', 'site_keys.name'])
    .select('maker', 'site_keys.name', 'sort', { site: 'sites.name' })
  const made = new Map<string, MadeKey[]>()
  for (const { maker, ...key } of rows) made.set(maker, [...(made.get(maker) ?? []), key])
  return made
}

/** Ends what somebody made to open sites with. */
export const endKeysOf = (knex: Knex, maker: string): Promise<number> => knex('site_keys').where({ maker }).delete()

/** Makes what somebody made somebody else's. */
export const handKeysOn = (knex: Knex, maker: string, to: { id: string; name: string }): Promise<number> =>
  knex('site_keys').where({ maker }).update({ maker: to.id, made_by: to.name })

/** Takes a key back: from then on it opens nothing. */
export const takeKeyBack = (knex: Knex, siteId: string, id: string): Promise<number> =>
  knex('site_keys').where({ site_id: siteId, id }).delete()
