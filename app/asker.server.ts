import { AsyncLocalStorage } from 'node:async_hooks'
import { data, type MiddlewareFunction, redirect } from 'react-router'
import { covers, type Right } from '../core/people/rights'
import { database, isDatabaseAway } from '../server/database/connection'
import { ANYBODY, type Asker, accessTo, askerOf, askerStands, hasAccounts } from '../server/people/asker'
import type { Person } from '../server/people/person'
import { type Access, ALL } from '../server/people/site-rights'
import { currentCopy, type Held } from '../server/sites/copies'
import type { SiteRow } from '../server/sites/entity-rows'
import { AWAY_WORDS } from './away-words'
import { carriedBy } from './carried.server'
import { AS_HEADER } from './outbox/item'

/** Who asks, and what they may do on the site that the address names. */
type Asking = {
  who: Asker
  site: string | undefined
  access: Access | null
  reads: boolean
  /** The site as it stood when whoever only reads asked for it first: all parts of a page show the same. */
  copy?: Promise<Held | null>
  row?: SiteRow | null
  /** What the answer is made of, kept until it is there whatever others ask for meanwhile. */
  holds?: object[]
}
const asking = new AsyncLocalStorage<Asking>()

function now(): Asking {
  const known = asking.getStore()
  if (!known) throw new Error('nobody asks: this is no part of answering a request')
  return known
}

/** Who sent the request that is being answered. */
export const asker = (): Asker => now().who

/** The person who sent it; null where it is none, or where nobody has been asked for. */
export const personAsking = (): Person | null => asking.getStore()?.who.person ?? null

/** A site that is read, once for all parts of a page. Whoever changes something reads it anew. */
export function copyOnce(knex: Knex, siteId: string): Promise<Held | null> {
  const asked = now()
  if (asked.site !== siteId || !asked.reads) return currentCopy(knex, siteId)
  asked.copy ??= currentCopy(knex, siteId, asked.row)
  return asked.copy
}

/** Keeps something until the request is answered. */
export function whileAnswering(kept: object): void {
  const asked = asking.getStore()
  if (asked) asked.holds = [...(asked.holds ?? []), kept]
}

/** What they may do on a site, and what of it they are kept from. */
export async function access(knex: Knex, siteId: string): Promise<Access | null> {
  const { who, site, access: here } = now()
  return site === siteId ? here : accessTo(knex, who, siteId)
}
type Knex = ReturnType<typeof database>

/** Pages that anybody may open: how one comes in, and what says nothing of any site. */
export const FOR_ANYBODY: ReadonlySet<string> = new Set([
  '/sign-in',
  '/sign-in/passkey',
  '/sign-in/company',
  '/sign-in/company/back',
  '/sign-out',
  '/welcome/:invitation',
  '/look/:link',
  '/words',
  '/unit',
])

/** What a person does beside the sites; whoever has only a key to a site does none of it. */
export const FOR_PEOPLE: ReadonlySet<string> = new Set(['/', '/import', '/account', '/account/passkeys', '/who'])
/** What those who run this Hallway do. */
export const FOR_ADMINS: ReadonlySet<string> = new Set(['/people'])
/** What those who lead a site do there, whatever is sent. */
export const FOR_LEADS: ReadonlySet<string> = new Set(['/sites/:site/people'])

/** What of a site is shown to those who are kept from its prices or notes: pages and files that are made of the copy they get, and drawings. */
export const FOR_BRIEF_READERS: ReadonlySet<string> = new Set(
  [
    '',
    '/survey',
    '/survey/:device',
    '/floors',
    '/floors/:floor',
    '/needs',
    '/needs/:need',
    '/visitors',
    '/growth',
    '/drawer',
    '/cables/:cable',
    '/docks/:device',
    '/reach',
    '/verdicts',
    '/verdicts.csv',
    '/install',
    '/prove',
    '/prove/:run',
    '/find',
    '/runs/:run',
    '/copy',
    '/changes',
    '/live',
    '/files/:file',
    '/plan.json',
    '/drawer.csv',
  ].map((each) => `/sites/:site${each}`),
)
const NOT_SHOWN = 'This page tells of prices or notes, which are not shown to you. Ask whoever let you look.'

/** What changes nothing. */
export const READS: ReadonlySet<string> = new Set(['GET', 'HEAD'])

/**
 * Stands before every page, file and stream, whichever part of it is asked for: finds out who asks, and turns away whoever may not read what the address
 * names, or may change nothing there. What a change may hold is judged where changes are made.
 */
export const knowWhoAsks: MiddlewareFunction<Response> = async ({ request, params, pattern }, next) => {
  const { site } = params
  const found = await unlessAway(async (): Promise<Asking> => {
    const knex = database()
    const reads = READS.has(request.method)
    if (!(await hasAccounts(knex))) return { who: ANYBODY, site, access: ALL, reads }
    const here = { site, reads, ...(await askerOf(knex, await carriedBy(request), site)) }
    admit(here, request, `/${pattern.replace(/^\/+/, '')}`)
    return here
  })
  return asking.run(found, next)
}

export async function unlessAway<T>(work: () => Promise<T>): Promise<T> {
  try {
    return await work()
  } catch (error) {
    throw isDatabaseAway(error) ? data(AWAY_WORDS, { status: 503 }) : error
  }
}

function admit({ who, site, access: here }: Asking, request: Request, pattern: string): void {
  if (FOR_ANYBODY.has(pattern)) return
  if (!who.person && !who.key) throw signInFirst(request)
  const as = request.headers.get(AS_HEADER)
  if (as !== null && as !== who.person?.id) throw data(SOMEBODY_ELSE, { status: 403 })
  if (site !== undefined) {
    // whoever may not see a site does not learn that it is there
    if (here === null) throw data(null, { status: 404 })
    if (!covers(here.held, wanted(pattern, request))) throw data(TOO_LITTLE[here.held], { status: 403 })
    if (here.hides.length > 0 && !FOR_BRIEF_READERS.has(pattern)) throw data(NOT_SHOWN, { status: 403 })
    return
  }
  if (FOR_ADMINS.has(pattern) && !who.person?.admin) throw data(null, { status: 404 })
  if (FOR_PEOPLE.has(pattern) && !who.person) throw redirect(`/sites/${who.key?.site}`)
}

const wanted = (pattern: string, { method }: Request): Right =>
  FOR_LEADS.has(pattern) ? 'lead' : READS.has(method) ? 'look' : 'work'

const TOO_LITTLE: Record<Right, string> = {
  look: 'You may look at this site, not change it. Nothing was changed. Ask whoever leads the site for more.',
  work: 'Only whoever leads this site may do that. Nothing was changed.',
  lead: 'You may not do that. Nothing was changed.',
}

/** A page is asked for again once somebody has signed in; what was sent waits in the browser until then. */
function signInFirst(request: Request): Response | ReturnType<typeof data> {
  if (!READS.has(request.method)) return data(SIGNED_OUT, { status: 401 })
  // a stream cannot show how to sign in, and its page asks for it again
  if (request.headers.get('Accept') === 'text/event-stream') return data(null, { status: 401 })
  const { pathname, search } = new URL(request.url)
  const to = pathname.replace(/(\/_root|)\.data$/, '') || '/'
  return redirect(`/sign-in?${new URLSearchParams({ to: `${to}${withoutInner(search)}` })}`)
}
const SOMEBODY_ELSE = 'This was typed by somebody else, who is signed out by now. Nothing was saved.'
const SIGNED_OUT = 'You are signed out, so nothing was saved. Sign in in another tab, then send it again.'

/** The part of an address that people see: which loaders a page asks for is its own affair. */
function withoutInner(search: string): string {
  const params = new URLSearchParams(search)
  for (const inner of ['_routes', 'index']) params.delete(inner)
  return params.size > 0 ? `?${params}` : ''
}

/** What they may do on a site for a change that is being made: asked anew in its own transaction. */
export function rightsOfAsker(): ((trx: Knex, siteId: string) => Promise<Right | null>) | undefined {
  const who = asker()
  if (who.open) return undefined
  return async (trx, siteId) => (await accessTo(trx, await askerStands(trx, who), siteId))?.held ?? null
}

/** A stream outlasts the request that opened it: it is asked again this often whether its reader may still look. */
const STILL_EVERY_MS = 5000

/** Calls `leave` once whoever asks may no longer look at a site. Answers how the asking is stopped. */
export function whileAllowed(siteId: string, leave: () => void): () => void {
  const rights = rightsOfAsker()
  if (!rights) return () => {}
  const timer = setInterval(async () => {
    // a database that is away says nothing of rights
    const held = await rights(database(), siteId).catch(() => 'look' as const)
    if (held === null) leave()
  }, STILL_EVERY_MS)
  return () => clearInterval(timer)
}
