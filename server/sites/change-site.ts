import { randomUUID } from 'node:crypto'
import { setTimeout as wait } from 'node:timers/promises'
import type { Knex } from 'knex'
import { applyChange } from '../../core/change/apply'
import {
  type Applied,
  type Change,
  type ChangeToMake,
  type Clash,
  type Copy,
  type Edit,
  entityKey,
  type LogPosition,
  revisionOf,
  type What,
} from '../../core/change/change'
import { entityAt } from '../../core/change/copy'
import { followed } from '../../core/change/followed'
import { changesNothing, rebase } from '../../core/change/merge'
import type { KeptImage } from '../../core/files/file-types'
import { beyond, type Right } from '../../core/people/rights'
import { signed } from '../../core/people/signed'
import type { Entity, Fault } from '../../core/plan/entity'
import { busy, isBusy, isDatabaseAway, isLockTrouble } from '../database/connection'
import { lastLook, offTheClock, timeLeft } from '../database/deadline'
import { retried } from '../database/transaction'
import { isFull, noteFull } from '../disk'
import { isDiskFull } from '../failure'
import { FILES_FULL, followNames, keepFiles } from '../files/files'
import { log } from '../log'
import { copyWithin, type Held, keep } from './copies'
import { editsSince, entitiesWere, lastHand, writeChange } from './entity-rows'
import { announce } from './live'
import { inTurn } from './turns'

/** Who changes something. The id is the sender's where it made one, so that what is sent twice is one change. */
export type Hand = {
  by: string
  id?: string | undefined
  /** What was sent under that id, in short: the route, what it asks for and its fields. The same again is answered as it was; anything else is refused. */
  digest?: string | undefined
  /** A place whose state somebody has seen in a conflict and writes over. */
  over?: LogPosition | null
  /** Whose account leads a site that is made; nobody's where admins lead it, or where there are no accounts. */
  leads?: string | undefined
  /**
   * What they may do on a site, asked while the change is made, so that a right that was taken away meanwhile is gone. Left out where whoever runs this
   * Hallway does it, at the terminal, who may do everything.
   */
  rights?: ((trx: Knex, siteId: string) => Promise<Right | null>) | undefined
}

export type Refused = { outcome: 'refused'; faults: readonly Fault[] }
export const refused = (path: string, reason: string): Refused => ({ outcome: 'refused', faults: [{ path, reason }] })

/** What somebody else changed since, with who that was. */
export type ClashWith = Clash & { by: string | null }

export type Outcome =
  /** No id where nothing was to be changed. `what` it was called and its `edits`, as they were written. */
  | { outcome: 'saved'; place: LogPosition; id: string | null; what: What | null; edits: readonly Edit[] }
  | { outcome: 'conflict'; clashes: ClashWith[]; place: LogPosition }
  | Refused
  /** Whoever sent it may not change that. */
  | { outcome: 'forbidden'; faults: readonly Fault[] }
  | { outcome: 'no-site' }
  /** The disk that keeps the sites has no room: nothing was written. */
  | { outcome: 'full' }
  /** Somebody else's save does not end: nothing was written. */
  | { outcome: 'busy' }
  /** The database went away while it answered: the change may have been saved, and sending it again saves it once. */
  | { outcome: 'unknown' }

/** What is asked for stands so already. */
export const NOTHING_TO_CHANGE = { outcome: 'nothing' } as const

/** A change of those among several that do not stand so already; none of them left is what was asked for, and not a loss. */
export const unlessSo = <T extends ChangeToMake>(made: T): T | typeof NOTHING_TO_CHANGE =>
  made.edits.length > 0 ? made : NOTHING_TO_CHANGE

/** What a change was about is not there any more: to answer that it was saved would lose it. */
const NO_LONGER_SO = refused(
  'change',
  'what this was about was changed or taken away meanwhile. Look at it as it is now, then do it again',
)

/** What a change brings along besides its edits: the id of the one it undoes, files that it names. */
type Along = { undoes?: string; files?: readonly KeptImage[] }

type Made = (ChangeToMake & Along) | Refused | typeof NOTHING_TO_CHANGE

/** Makes a change of the site as it stands when its turn has come, or says that there is nothing to change; what it refuses is not written. */
export type MakeChange = (copy: Copy, trx: Knex) => Made | Promise<Made>

/** A site that is changed, and what makes the change of it. */
export type Part = { siteId: string; make: MakeChange }

/**
 * The one way a site changes. Takes the site's turn and lock, brings the copy up to date, lets `make` say what is to be changed, merges what somebody
 * else changed since field by field, applies it, and writes entities and log in one transaction: all of it or nothing.
 */
export const changeSite = (knex: Knex, siteId: string, hand: Hand, make: MakeChange): Promise<Outcome> =>
  changeSites(knex, hand, [{ siteId, make }])

/**
 * Several sites changed as one, each in its own way: one change id in the logs of all, in all of them or in none. What is to be changed is made in the order
 * given, so that a later site may take what an earlier one gives; the last is the one that asks, and its outcome is the answer. Rows are locked in the
 * order of the ids.
 */
export function changeSites(knex: Knex, hand: Hand, parts: readonly [...Part[], Part]): Promise<Outcome> {
  const id = hand.id ?? randomUUID()
  const sites = parts.map(({ siteId }) => siteId)
  const work = async () => {
    if (await isFull()) return { outcome: 'full' } as const
    return withRetries(knex, sites.at(-1) as string, id, (attempt) => once(knex, { ...hand, id }, parts, attempt))
  }
  return inTurn(sites, work).catch((error) => {
    if (isBusy(error)) return { outcome: 'busy' }
    throw error
  })
}

/** Tells whether a transaction had written all it had to before it failed: then only its commit can have been lost. */
type Attempt = { written: boolean }

/** What a change comes to, however often writers of other processes come in between; a commit whose answer was lost is looked for. */
async function withRetries(
  knex: Knex,
  siteId: string,
  id: string,
  work: (attempt: Attempt) => Promise<Outcome>,
): Promise<Outcome> {
  let attempt: Attempt = { written: false }
  let held: unknown = null
  try {
    return await retried(() => {
      attempt = { written: false }
      return work(attempt).catch((error) => {
        if (isLockTrouble(error)) held = error
        throw error
      })
    })
  } catch (error) {
    if (isDiskFull(error)) {
      noteFull()
      return { outcome: 'full' }
    }
    // what was held by others to the end was not written
    if (isBusy(error) || !isDatabaseAway(error)) throw error
    if (!attempt.written) throw held === null ? error : busy(held)
    log.warn({ site: siteId }, 'a connection was lost in a commit')
    return whatBecame(knex, siteId, id, error)
  }
}

/** As long as a restart of the database takes, and somebody waits. */
const LOOK_FOR_MS = 6000

/** Whether a change whose commit was lost has been written: asked of the log, for a while. */
async function whatBecame(knex: Knex, siteId: string, id: string, lost: unknown): Promise<Outcome> {
  lastLook()
  const until = performance.now() + Math.min(LOOK_FOR_MS, timeLeft())
  while (performance.now() < until) {
    try {
      // waits for the transaction, should the database still be busy with it
      await lockSite(knex, siteId)
      const known = await writtenBefore(knex, siteId, id)
      if (known) return known.answer
      throw lost
    } catch (error) {
      if (error === lost) throw error
      if (!isDatabaseAway(error) && !isLockTrouble(error)) throw error
      await wait(250)
    }
  }
  return { outcome: 'unknown' }
}

/** A row that others hold is waited for so long at a time. */
const LOCK_SECONDS = 3

/** Takes the row of a site for a transaction; false where there is none. It is waited for no longer than there is time, so that a row that is held is told from a database that is away. */
async function lockSite(trx: Knex, siteId: string): Promise<boolean> {
  // the database looks once a second whose wait is over
  const seconds = Math.max(0, Math.min(LOCK_SECONDS, Math.floor(timeLeft() / 1000) - 1))
  const [rows] = await trx.raw(`SELECT id FROM sites WHERE id = ? FOR UPDATE WAIT ${seconds}`, [siteId])
  return rows.length > 0
}

/** What one site is to become, and what answers for it. */
type Drafted = { siteId: string; before: Held; draft: ChangeToMake & Along; applied: Applied }

async function once(
  knex: Knex,
  hand: Hand & { id: string },
  parts: readonly Part[],
  attempt: Attempt,
): Promise<Outcome> {
  const asking = parts.at(-1)?.siteId ?? ''
  // what somebody may not see is as what is not there: nothing of it is held or made. Asked outside, as a transaction sees the site as it stood at its first question
  for (const { siteId } of parts)
    if (hand.rights && (await hand.rights(knex, siteId)) === null) return { outcome: 'no-site' }
  const held: (Held & { siteId: string })[] = []
  const outcome = await knex.transaction(async (trx): Promise<Outcome> => {
    const known = new Map<string, Held>()
    for (const siteId of parts.map((part) => part.siteId).sort()) {
      const found = (await lockSite(trx, siteId)) ? await copyWithin(knex, trx, siteId) : null
      if (!found) return { outcome: 'no-site' }
      known.set(siteId, found)
    }
    // what was sent twice is answered as it was, before anything is made of the site as it is by now
    const sent = await writtenBefore(trx, asking, hand.id)
    if (sent) return answerTo(sent, hand)
    const all: Drafted[] = []
    for (const { siteId, make } of parts) {
      const before = known.get(siteId) as Held
      const made = await offTheClock(() => drafted(trx, siteId, before.copy, hand, make))
      if ('outcome' in made) return made
      all.push({ siteId, before, ...made })
    }
    for (const each of all) {
      const { siteId, before, applied } = each
      await write(
        trx,
        hand,
        each,
        all.flatMap((other) => (other === each ? [] : other.siteId)),
      )
      held.push({ siteId, identity: before.identity, copy: applied.copy })
    }
    attempt.written = true
    const last = all.at(-1) as Drafted
    const { copy, edits } = last.applied
    return { outcome: 'saved', place: copy.place, id: hand.id, what: whatOf(last), edits }
  })
  for (const { siteId, ...copy } of held) {
    keep(knex, siteId, copy)
    announce(siteId, copy.copy.place)
  }
  return outcome
}

/** What a site would become by what `make` says of it, merged with what others changed since; or why not. */
async function drafted(
  trx: Knex.Transaction,
  siteId: string,
  copy: Copy,
  { by, over, rights }: Hand,
  make: MakeChange,
): Promise<Pick<Drafted, 'draft' | 'applied'> | Outcome> {
  const nothing: Outcome = { outcome: 'saved', place: copy.place, id: null, what: null, edits: [] }
  const held = rights ? await rights(trx, siteId) : 'lead'
  if (held === null) return { outcome: 'no-site' }
  const draft = await make(copy, trx)
  if ('outcome' in draft) return draft.outcome === 'nothing' ? nothing : draft
  if (draft.edits.length === 0) return NO_LONGER_SO
  // what is taken back stands under the names it stood under
  const sent =
    rights && !draft.undoes
      ? draft.edits.map((edit) => signed(edit, entityAt(copy.plan, edit.list, edit.id), by))
      : draft.edits
  const was = await asTheyWere(trx, siteId, copy, sent)
  const { edits, clashes } = rebase(copy, sent, (edit) => was.get(entityKey(edit.list, edit.id)) ?? null, over ?? null)
  if (clashes.length > 0) return conflict(trx, siteId, copy, clashes)
  const real = followed(
    copy,
    edits.filter((edit) => !changesNothing(copy, edit)),
  )
  if (real.length === 0) return nothing
  const forbidden = beyond(held, real)
  if (forbidden.length > 0) return { outcome: 'forbidden', faults: forbidden }
  const applied = applyChange(copy, { edits: real, ...(draft.undoes ? { undoes: draft.undoes } : {}) })
  if (applied.outcome === 'conflict') return conflict(trx, siteId, copy, applied.clashes)
  if (applied.outcome === 'refused') return applied
  if (draft.files && !(await keepFiles(trx, siteId, draft.files))) return refused('file', FILES_FULL)
  return { draft, applied }
}

/** What a change is called, once it is known what is left of it. */
const whatOf = ({ draft: { what }, before, applied }: Drafted): What =>
  typeof what === 'function' ? what(before.copy.plan, applied.edits) : what

/** Writes what a site becomes: its entities, its log, and which files it names. */
async function write(
  trx: Knex.Transaction,
  hand: Hand & { id: string },
  one: Drafted,
  along: readonly string[],
): Promise<void> {
  const { siteId, before, draft, applied } = one
  const change: Change = {
    id: hand.id,
    at: new Date().toISOString(),
    by: hand.by,
    what: whatOf(one),
    ...(draft.undoes ? { undoes: draft.undoes } : {}),
    edits: applied.edits,
  }
  await writeChange(trx, siteId, change, applied, { digest: hand.digest ?? null, along })
  const { place, plan } = applied.copy
  await followNames(trx, siteId, { before: before.copy.plan, after: plan }, { place, at: change.at })
}

/** Another change was saved under this id: to say that this one was would lose it. */
const OTHER_BEFORE = refused(
  'change',
  'something else was saved from this form before. Open the page again to see what stands now, and do it there',
)

/** A change that was written under an id, with the digest of what was sent; null where there is none. */
async function writtenBefore(
  trx: Knex,
  siteId: string,
  id: string,
): Promise<{ digest: string | null; answer: Outcome & { outcome: 'saved' } } | null> {
  const row = await trx('changes').where({ site_id: siteId, id }).first('place', 'digest', 'name', 'about')
  if (!row) return null
  const edits = (await editsSince(trx, siteId, row.place - 1, row.place)).get(row.place) ?? []
  const what: What = { name: row.name, about: row.about }
  return { digest: row.digest, answer: { outcome: 'saved', place: row.place, id, what, edits } }
}

/**
 * What was answered to the same form before, where it was sent twice; null where it comes for the first time. For whoever reads what was sent with the help of
 * the site, which has changed by it.
 */
export async function answeredBefore(knex: Knex, siteId: string, hand: Hand): Promise<Outcome | null> {
  const sent = hand.id === undefined ? null : await writtenBefore(knex, siteId, hand.id)
  return sent && answerTo(sent, hand)
}

const answerTo = ({ digest, answer }: NonNullable<Awaited<ReturnType<typeof writtenBefore>>>, hand: Hand): Outcome =>
  digest === null || digest === (hand.digest ?? null) ? answer : OTHER_BEFORE

/** What was edited from an older copy and has changed since, as it stood in that copy. */
async function asTheyWere(
  trx: Knex,
  siteId: string,
  copy: Copy,
  edits: readonly Edit[],
): Promise<Map<string, Entity | null>> {
  const byBase = new Map<LogPosition, Edit[]>()
  for (const edit of edits) {
    const { list, id, base } = edit
    if (base === null || !Number.isInteger(base) || base < 1 || base > copy.place) continue
    if (entityAt(copy.plan, list, id) === null || revisionOf(copy, list, id) <= base) continue
    const from = byBase.get(base)
    if (from) from.push(edit)
    else byBase.set(base, [edit])
  }
  const was = new Map<string, Entity | null>()
  for (const [base, from] of byBase)
    for (const [key, entity] of await entitiesWere(trx, siteId, from, base)) was.set(key, entity)
  return was
}

async function conflict(trx: Knex, siteId: string, copy: Copy, clashes: readonly Clash[]): Promise<Outcome> {
  const told: ClashWith[] = []
  for (const clash of clashes) told.push({ ...clash, by: await lastHand(trx, siteId, clash) })
  return { outcome: 'conflict', clashes: told, place: copy.place }
}
