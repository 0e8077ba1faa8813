import { createHash } from 'node:crypto'
import { parse, serialize } from 'cookie'
import { database } from '../server/database/connection'
import type { Carried } from '../server/people/asker'
import { LONGEST_DAYS } from '../server/people/sessions'
import { signingSecret } from '../server/people/signing-secret'
import { publicUrl } from '../server/web/reach'

/** What a browser is given to carry: that somebody is signed in, a link to look at a site, under whose name it was signed in before, and what it went to the company's sign-in for. */
export type Carries = 'session' | 'link' | 'known' | 'errand'

const DAY_SECONDS = 86_400
const LASTS_DAYS: Record<Carries, number> = { session: LONGEST_DAYS, link: LONGEST_DAYS, known: 365, errand: 1 / 96 }

const secure = (): boolean => publicUrl()?.protocol === 'https:'

/** Cookies go by host, not by port: another Hallway on this machine has others. */
async function nameOf(what: Carries): Promise<string> {
  const own = createHash('sha256')
    .update(await signingSecret(database()))
    .digest('hex')
    .slice(0, 10)
  return `${secure() ? '__Host-' : ''}hallway-${what}-${own}`
}

/** A cookie for something that a browser is to carry; null takes it away. No script of a page can read it. */
export async function carry(what: Carries, value: string | null): Promise<string> {
  return serialize(await nameOf(what), value ?? '', {
    path: '/',
    httpOnly: true,
    sameSite: 'lax',
    secure: secure(),
    maxAge: value === null ? 0 : LASTS_DAYS[what] * DAY_SECONDS,
  })
}

/** What a request carries. A token comes in its own header and never in an address, where it would be written down on its way. */
export async function carriedBy(request: Request): Promise<Carried & { known: string | null; errand: string | null }> {
  const cookies = parse(request.headers.get('Cookie') ?? '')
  const read = async (what: Carries) => cookies[await nameOf(what)] || null
  const [, token = null] = /^Bearer ([\w-]{20,100})$/.exec(request.headers.get('Authorization') ?? '') ?? []
  const [session, link, known, errand] = await Promise.all([
    read('session'),
    read('link'),
    read('known'),
    read('errand'),
  ])
  return { session, link, known, errand, token }
}
