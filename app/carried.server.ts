import { createHash } from 'node:crypto'
import { parse, serialize } from 'cookie'
import { database } from '../server/database/connection'
import type { Carried } from '../server/people/asker'
import { knownAs, knownIn } from '../server/people/known-browser'
import type { Person } from '../server/people/person'
import { LONGEST_DAYS } from '../server/people/sessions'
import { signingSecret } from '../server/people/signing-secret'
import { publicUrl } from '../server/web/reach'

/**
 * What a browser is given to carry: that somebody is signed in, a link to look at a site, who was signed in with it before, what it went to the
 * company's sign-in for, and how far a cluster of databases had come when it saved something.
 */
export type Carries = 'session' | 'link' | 'known' | 'errand' | 'place'

const DAY_SECONDS = 86_400
const LASTS_DAYS: Record<Carries, number> = {
  session: LONGEST_DAYS,
  link: LONGEST_DAYS,
  known: 365,
  errand: 1 / 96,
  place: 1 / 96,
}

const secure = (): boolean => publicUrl()?.protocol === 'https:'

let named: { secret: string; of: Record<Carries, string> } | undefined

/** Cookies go by host, not by port: another Hallway on this machine has others. */
async function namesOf(): Promise<Record<Carries, string>> {
  const secret = await signingSecret(database())
  if (named?.secret === secret) return named.of
  const own = createHash('sha256').update(secret).digest('hex').slice(0, 10)
  const name = (what: Carries) => `${secure() ? '__Host-' : ''}hallway-${what}-${own}`
  const of = {
    session: name('session'),
    link: name('link'),
    known: name('known'),
    errand: name('errand'),
    place: name('place'),
  }
  named = { secret, of }
  return of
}

/** A cookie for something that a browser is to carry; null takes it away. No script of a page can read it. */
export async function carry(what: Carries, value: string | null): Promise<string> {
  return serialize((await namesOf())[what], value ?? '', {
    path: '/',
    httpOnly: true,
    sameSite: 'lax',
    secure: secure(),
    maxAge: value === null ? 0 : LASTS_DAYS[what] * DAY_SECONDS,
  })
}

/** What a browser carries once somebody has signed in with it. */
export const carrySignedIn = async (session: string, { id }: Pick<Person, 'id'>): Promise<[string, string][]> => [
  ['Set-Cookie', await carry('session', session)],
  ['Set-Cookie', await carry('known', await knownAs(database(), id))],
]

/** What a request carries. A token comes in its own header and never in an address, where it would be written down on its way. */
export async function carriedBy(
  request: Request,
): Promise<Carried & Record<'known' | 'errand' | 'place', string | null>> {
  const cookies = parse(request.headers.get('Cookie') ?? '')
  const names = await namesOf()
  const read = (what: Carries) => cookies[names[what]] || null
  const [, token = null] = /^Bearer ([\w-]{20,100})$/.exec(request.headers.get('Authorization') ?? '') ?? []
  return {
    session: read('session'),
    link: read('link'),
    known: await knownIn(database(), read('known')),
    errand: read('errand'),
    place: read('place'),
    token,
  }
}
