import { randomUUID } from 'node:crypto'
import type { Knex } from 'knex'
import type { Right } from '../../core/people/rights'
import type { Detail } from '../../core/people/shown'
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
}

/** That a key was used is written down no more often. */
const USED_EVERY_MS = 60_000

/** Makes a key. What it is carried as is told this once; only its sum is kept. */
export async function makeKey(knex: Knex, siteId: string, { by, hides, ...key }: KeyToMake): Promise<string> {
  const { text, digest } = newSecret()
  const row = { digest, id: randomUUID(), site_id: siteId, ...key, made_by: by, made: new Date() }
  await knex('site_keys').insert({ ...row, hides: key.held === 'look' ? hides.join(' ') : '' })
  return text
}

/** The key that somebody carries; null where it has ended, was taken back or is made up. A link is not good as a token, nor the other way round. */
export async function keyOf(knex: Knex, text: string, sort: KeySort): Promise<SiteKey | null> {
  const digest = digestOf(text)
  const row = await knex('site_keys')
    .where({ digest, sort })
    .where((query) => query.whereNull('until').orWhere('until', '>', new Date()))
    .first('id', { site: 'site_id' }, 'name', 'sort', 'held', 'hides', 'used')
  if (!row) return null
  const { used, hides, ...key } = row
  if (used === null || Date.now() - Date.parse(`${used}Z`) > USED_EVERY_MS)
    await knex('site_keys').where({ digest }).update({ used: new Date() }).increment('uses', 1)
  return { ...key, hides: hidesOf(hides) }
}

/** The keys of a site, the latest first. */
export async function keysOf(knex: Knex, siteId: string): Promise<ListedKey[]> {
  const rows = await knex('site_keys')
    .where({ site_id: siteId })
    .orderBy('made', 'desc')
    .select('id', 'name', 'sort', 'held', 'hides', { madeBy: 'made_by' }, 'made', 'until', 'used', 'uses')
  return rows.map(({ hides, ...row }) => ({ ...row, hides: hidesOf(hides) }))
}

/** Takes a key back: from then on it opens nothing. */
export const takeKeyBack = (knex: Knex, siteId: string, id: string): Promise<number> =>
  knex('site_keys').where({ site_id: siteId, id }).delete()
