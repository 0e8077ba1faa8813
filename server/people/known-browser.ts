import { createHmac, timingSafeEqual } from 'node:crypto'
import type { Knex } from 'knex'
import { signingSecret } from './signing-secret'

const signatureOf = async (knex: Knex, person: string): Promise<Buffer> =>
  createHmac('sha256', await signingSecret(knex))
    .update(`known ${person}`)
    .digest()

/** What a browser keeps to show later that somebody was signed in with it. */
export const knownAs = async (knex: Knex, person: string): Promise<string> =>
  `${person}.${(await signatureOf(knex, person)).toString('base64url')}`

/** Who was signed in with a browser, by what it keeps; null where it keeps nothing, or nothing that this Hallway has signed. */
export async function knownIn(knex: Knex, text: string | null): Promise<string | null> {
  const [, person = '', shown = ''] = /^([\w-]{1,64})\.([\w-]{43})$/.exec(text ?? '') ?? []
  if (person === '') return null
  return timingSafeEqual(Buffer.from(shown, 'base64url'), await signatureOf(knex, person)) ? person : null
}
