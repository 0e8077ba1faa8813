import { randomUUID } from 'node:crypto'
import type { Person } from '../server/people/person'
import { NONCE_HEADER } from '../server/web/nonce'

/** What is filled into a page each time it is sent: the one-time word of its scripts, and the name and the account of whoever gets it. */
export type FilledIn = { nonce: string; name: string; id: string }

/**
 * Stand for that in a page until it is sent: so it is rendered once for all who have the same rights. Nobody outside this process knows them, so nothing that
 * people write is taken for them.
 */
export const STAND_INS: FilledIn = {
  nonce: `nonce-${randomUUID()}`,
  name: `name-${randomUUID()}`,
  id: `id-${randomUUID()}`,
}

/** Letters that are written alike in a page, in its attributes and in its scripts. */
const PLAIN = /^[\p{L}\p{N} .-]+$/u

/** How a page calls the person it is for. Somebody whose name is more than plain letters has pages of their own, and so has whatever is no page. */
export const readerOf = (request: Request, person: Person): Pick<Person, 'name' | 'id'> =>
  request.headers.has(NONCE_HEADER) && PLAIN.test(person.name) ? STAND_INS : person
