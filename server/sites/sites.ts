import { randomUUID } from 'node:crypto'
import type { Knex } from 'knex'
import { bringInSite } from '../../core/change/changes/site'
import { copyOf } from '../../core/change/copy'
import type { KeptImage } from '../../core/files/file-types'
import { slugOf } from '../../core/plan/free-id'
import { emptyPlan, type Plan } from '../../core/plan/plan'
import { withFollowedRoutes } from '../../core/route/follow'
import { busy, isDuplicate, isLockTrouble } from '../database/connection'
import { withRoom } from '../disk'
import { Failure } from '../failure'
import { FILES_FULL, fileId, filesNamed, keepFiles } from '../files/files'
import type { BroughtDocument } from '../handover/brought'
import { keepDocuments } from '../handover/documents'
import { letLead } from '../people/site-rights'
import { bringSeries, type SeriesFile } from '../series/series-file'
import type { Hand } from './change-site'
import { keep } from './copies'
import { insertSite } from './entity-rows'

export type SiteListing = {
  id: string
  identity: string
  /** Where its log stands. */
  place: number
  name: string
  note: string | null
  putAway: boolean
  runs: number
  cables: number
  devices: number
}

/** All sites with the size of each, by name. */
export async function listSites(knex: Knex): Promise<SiteListing[]> {
  const count = (list: string) =>
    knex('entities').count('*').where({ list }).whereRaw('?? = ??', ['entities.site_id', 'sites.id'])
  const rows = await knex('sites')
    .select('id', 'identity', 'place', 'name', 'note', 'put_away', {
      runs: count('runs'),
      cables: count('cables'),
      devices: count('devices'),
    })
    .orderBy('name')
  return rows.map(({ put_away, ...row }) => ({ ...row, putAway: Boolean(put_away) }))
}

export async function siteExists(knex: Knex, siteId: string): Promise<boolean> {
  return (await knex('sites').where({ id: siteId }).first('id')) !== undefined
}

/** A new, empty site. Its id is made from its name and made free by a number where need be. */
export const createSite = (knex: Knex, hand: Hand, name: string, note?: string): Promise<string> =>
  importPlan(knex, hand, emptyPlan({ id: slugOf(name, 'site'), name, ...(note ? { note } : {}) }))

/** Writes a plan as a new site in one transaction, its first change, and answers its id. Nothing is ever overwritten: a taken id gets a number. */
export const importPlan = (knex: Knex, hand: Hand, plan: Plan, archive?: BroughtAlong): Promise<string> =>
  withRoom(() => bringIn(knex, hand, plan, archive))

async function bringIn(knex: Knex, hand: Hand, plan: Plan, archive: BroughtAlong | undefined): Promise<string> {
  for (let attempt = 0; ; attempt += 1) {
    // sent twice, it is one site
    const sent = hand.id ? await knex('changes').where({ id: hand.id, place: 1 }).first('site_id', 'digest') : undefined
    if (sent && (sent.digest === null || sent.digest === (hand.digest ?? null))) return sent.site_id
    const id = await freeId(knex, plan.site.id)
    const copy = copyOf(withFollowedRoutes({ ...plan, site: { ...plan.site, id } }))
    const identity = randomUUID()
    // an id that brought in another file cannot name this one
    const change = {
      ...bringInSite(copy.plan),
      id: sent || !hand.id ? randomUUID() : hand.id,
      at: new Date().toISOString(),
      by: hand.by,
    }
    try {
      await knex.transaction(async (trx) => {
        await insertSite(trx, copy, identity, change, hand.digest ?? null)
        if (hand.leads) await letLead(trx, id, hand.leads)
        await bringFiles(trx, id, copy.plan, archive)
      })
      keep(knex, id, { identity, copy })
      return id
    } catch (error) {
      // somebody took the same id in between, or wrote what this one writes at another node
      const trouble = isLockTrouble(error)
      if (!(isDuplicate(error) || trouble) || attempt >= 5) throw trouble ? busy(error) : error
    }
  }
}

/** Files that come with a plan; asked for again where writing them has to be tried again. */
export type BroughtAlong = {
  files(): AsyncIterable<KeptImage> | Iterable<KeptImage>
  series?(): AsyncIterable<SeriesFile>
  documents?(): AsyncIterable<BroughtDocument> | Iterable<BroughtDocument>
}

/** Keeps the files that the plan names, as what it does not name belongs to nothing; the readings of its instruments; and what was made for its handovers. */
async function bringFiles(trx: Knex, siteId: string, plan: Plan, archive: BroughtAlong | undefined): Promise<void> {
  if (!archive) return
  const named = filesNamed(plan)
  for await (const file of archive.files()) {
    if (!named.has(fileId(file.bytes))) continue
    if (!(await keepFiles(trx, siteId, [file]))) throw new Failure(`This does not fit: ${FILES_FULL}.`)
  }
  for await (const file of archive.series?.() ?? [])
    if (!(await bringSeries(trx, siteId, file)))
      throw new Failure('This does not fit: it holds more readings of instruments than a site may keep.')
  const handovers = new Map(plan.handovers.map((handover) => [handover.id, handover]))
  for await (const { handover, document } of archive.documents?.() ?? []) {
    const at = handovers.get(handover)?.at
    if (at) await keepDocuments(trx, { siteId, handover }, [document], at)
  }
}

async function freeId(knex: Knex, wanted: string): Promise<string> {
  const stem = wanted.slice(0, 58)
  for (let number = 1; ; number += 1) {
    const id = number === 1 ? wanted : `${stem}-${number}`
    if (!(await siteExists(knex, id))) return id
  }
}
