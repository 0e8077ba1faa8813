import { data } from 'react-router'
import { database, isDatabaseAway } from '../server/database/connection'
import type { Refusal } from '../server/sites/lock'
import { readPlan, type StoredPlan } from '../server/sites/plan-rows'

type Knex = ReturnType<typeof database>

/** Reads something for a page; a database that is away is said so with 503, not as a fault of Hallway. */
export async function load<T>(work: (knex: Knex) => Promise<T>): Promise<T> {
  try {
    return await work(database())
  } catch (error) {
    if (isDatabaseAway(error)) throw data(null, { status: 503 })
    throw error
  }
}

export async function loadPlan(siteId: string): Promise<StoredPlan> {
  const stored = await load((knex) => readPlan(knex, siteId))
  if (!stored) throw data(null, { status: 404 })
  return stored
}

/** What a form says when the database went away in the middle: nothing of it was saved, all of it is still there. */
export const AWAY_MESSAGE =
  'The database does not answer, so nothing was saved. What you typed is still here: save again in a moment.'

/** Does a save; answers null where the database is away. Every save is one transaction, so nothing is half written. */
export async function save<T>(work: (knex: Knex) => Promise<T>): Promise<T | null> {
  try {
    return await work(database())
  } catch (error) {
    if (isDatabaseAway(error)) return null
    throw error
  }
}

export type NotSaved = { problem: string; status: number }

/** A page tells so many reasons; the rest would only push what was typed out of sight. */
const REASONS_TOLD = 5

/** Why something was not saved, in words for the page, with the status that goes with them. Null is what `save` answers where the database is away. */
export function whyNotSaved(answer: Refusal | null): NotSaved {
  if (answer === null) return { problem: AWAY_MESSAGE, status: 503 }
  if (answer.outcome === 'no-site') return { problem: 'This site no longer exists, so nothing was saved.', status: 404 }
  const reasons = [...new Set(answer.faults.map((fault) => fault.reason))].slice(0, REASONS_TOLD).join('; ')
  return { problem: `This does not fit the site: ${reasons}. Nothing was saved.`, status: 422 }
}
