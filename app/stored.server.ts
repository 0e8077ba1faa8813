import { data } from 'react-router'
import type { LogPosition } from '../core/change/change'
import type { Fault } from '../core/plan/entity'
import { catchUpWithCluster } from '../server/database/cluster'
import { database, isDatabaseAway } from '../server/database/connection'
import { SAVE_MS, withinTime } from '../server/database/deadline'
import { isFull } from '../server/disk'
import { Failure, isDiskFull } from '../server/failure'
import { changeSite, type Hand, type MakeChange, type Outcome } from '../server/sites/change-site'
import { currentCopy, type Held } from '../server/sites/copies'
import { access, copyOnce } from './asker.server'
import { AWAY_WORDS } from './away-words'
import { shownTo } from './shown-copy.server'
import { handOf } from './who.server'

type Knex = ReturnType<typeof database>

/** Reads something for a page; a database that is away is said so with 503, not as a fault of Hallway. */
export async function load<T>(work: (knex: Knex) => Promise<T>): Promise<T> {
  try {
    return await work(database())
  } catch (error) {
    if (isDatabaseAway(error)) throw data(AWAY_WORDS, { status: 503 })
    if (isDiskFull(error)) throw data(FULL_MESSAGE, { status: 503 })
    throw inWords(error)
  }
}

/** A site as whoever asks may see it; where they have seen it at a place, at that or a later one. */
export async function loadSite(siteId: string, seen: LogPosition = 0): Promise<Held> {
  const [held, may] = await load(async (knex) => {
    const found = await copyOnce(knex, siteId)
    const behind = found !== null && found.copy.place < seen
    if (behind) await catchUpWithCluster(knex)
    return [behind ? await currentCopy(knex, siteId) : found, await access(knex, siteId)] as const
  })
  if (!held || !may) throw data(null, { status: 404 })
  return shownTo(held, may.hides)
}

/** What a form says when the database went away in the middle: nothing of it was saved, all of it is still there. */
export const AWAY_MESSAGE =
  'The database does not answer, so nothing was saved. What you typed is still here: save again in a moment.'
const BUSY_MESSAGE =
  'Somebody else’s save does not end, so nothing was saved. What you typed is still here: save again in a moment.'
export const FULL_MESSAGE =
  'The server’s disk is full, so nothing was saved. What you typed is still here. Ask whoever runs this Hallway to make room, then save again.'
const UNKNOWN_MESSAGE =
  'The database went away while it answered, so it is not certain that this was saved. What you typed is still here: save again in a moment; it is saved once.'

/** Does a save; answers null where the database is away. Every save is one transaction, so nothing is half written. */
export async function save<T>(work: (knex: Knex) => Promise<T>): Promise<T | null> {
  try {
    return await withinTime(() => work(database()), SAVE_MS)
  } catch (error) {
    if (isDatabaseAway(error)) return null
    if (isDiskFull(error)) throw data(FULL_MESSAGE, { status: 503 })
    throw inWords(error)
  }
}

/** What a person can mend is told on the page; anything else is a fault of Hallway. */
const inWords = (error: unknown): unknown => (error instanceof Failure ? data(error.message, { status: 409 }) : error)

/** Changes a site for whoever sent a form. Null where the database is away. */
export async function change(
  request: Request,
  form: FormData,
  siteId: string,
  make: MakeChange,
): Promise<Outcome | null> {
  return saveOutcome(async (knex) => changeSite(knex, siteId, await handOf(request, form), make))
}

/** Any change of sites, with why it could not be made. Null where the database is away. */
export const saveOutcome = async (work: (knex: Knex) => Promise<Outcome>): Promise<Outcome | null> =>
  whyAway(await save(work))

/** A database that stopped for want of room is not only away. */
const whyAway = async (answer: Outcome | null): Promise<Outcome | null> =>
  answer === null && (await isFull()) ? { outcome: 'full' } : answer

/** Changes a site for a hand that is known. Null where the database is away. */
export const changeBy = async (hand: Hand, siteId: string, make: MakeChange): Promise<Outcome | null> =>
  saveOutcome((knex) => changeSite(knex, siteId, hand, make))

/** The place in the log of the copy that a form was made from; a form that says none, or what is none, was made from nothing there is. */
export function baseOf(form: FormData): LogPosition {
  const base = form.get('base')
  return typeof base === 'string' && /^\d{1,9}$/.test(base) ? Number(base) : NO_PLACE
}
const NO_PLACE = 0

export type NotSaved = { problem: string; status: number }

/** A page tells so many reasons; the rest would only push what was typed out of sight. */
const REASONS_TOLD = 5

/** Why something was not saved, in words for the page, with the status that goes with them. Null is what `save` answers where the database is away. */
export function whyNotSaved(answer: Exclude<Outcome, { outcome: 'saved' }> | null): NotSaved {
  switch (answer?.outcome) {
    case undefined:
      return { problem: AWAY_MESSAGE, status: 503 }
    case 'unknown':
      return { problem: UNKNOWN_MESSAGE, status: 503 }
    case 'busy':
      return { problem: BUSY_MESSAGE, status: 503 }
    case 'full':
      return { problem: FULL_MESSAGE, status: 503 }
    case 'no-site':
      return { problem: 'This site no longer exists, so nothing was saved.', status: 404 }
    case 'conflict': {
      const [by] = answer.clashes.flatMap((clash) => clash.by ?? [])
      return {
        problem: `${by ?? 'Somebody else'} changed the same since you opened this page, so nothing was saved. Look at it as it is now, then do it again.`,
        status: 409,
      }
    }
    case 'forbidden':
      return { problem: `Nothing was saved: ${reasonsOf(answer.faults)}.`, status: 403 }
    case 'refused':
      return { problem: `This does not fit the site: ${reasonsOf(answer.faults)}. Nothing was saved.`, status: 422 }
  }
}

export const reasonsOf = (faults: readonly Fault[]): string =>
  [...new Set(faults.map(({ reason }) => reason))].slice(0, REASONS_TOLD).join('; ')

/** An address with what was done told in it; what is not known is left out. */
export function addressWith(path: string, told: Readonly<Record<string, string | null | undefined>>): string {
  const params = new URLSearchParams(
    Object.entries(told).flatMap(([name, value]) => (value ? [[name, value] as [string, string]] : [])),
  )
  return params.size > 0 ? `${path}?${params}` : path
}
