import { randomUUID } from 'node:crypto'
import type { Person } from '../server/people/person'
import { NONCE_HEADER } from '../server/web/nonce'

/**
 * Stand in a page, until it is sent, for the name and the account of whoever gets it: so a page is rendered once for all who have the same rights. Nobody
 * outside this process knows them, so nothing that people write is taken for them.
 */
const STAND_INS = { name: `name-${randomUUID()}`, id: `id-${randomUUID()}` }

/** Letters that are written alike in a page, in its attributes and in its scripts. */
const PLAIN = /^[\p{L}\p{N} .-]+$/u

/** How a page calls the person it is for. Somebody whose name is more than plain letters has pages of their own, and so has whatever is no page. */
export const readerOf = (request: Request, person: Person): Pick<Person, 'name' | 'id'> =>
  request.headers.has(NONCE_HEADER) && PLAIN.test(person.name) ? STAND_INS : person

/** A rendered page as it is sent to somebody. */
export const sentTo = (html: string, person: Person | null): string =>
  person ? html.replaceAll(STAND_INS.name, person.name).replaceAll(STAND_INS.id, person.id) : html
