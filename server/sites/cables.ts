import { randomUUID } from 'node:crypto'
import type { Knex } from 'knex'
import { type Cable, type Evidence, MOST_EVIDENCE } from '../../core/plan/cable'
import type { Plan } from '../../core/plan/plan'
import { readPlan as checkPlan } from '../../core/plan/read'
import { holdSite, lockSite, placesIn, type Refusal, refused, setRevision } from './lock'
import { fill } from './plan-rows'
import { cableRow, evidenceRows } from './rows'

export type Saved = { outcome: 'saved'; revision: number }

/** Adds cables to a site, all in one transaction or none: what does not fit the site refuses the lot, with every reason. */
export async function addCables(knex: Knex, siteId: string, cables: readonly Cable[]): Promise<Saved | Refusal> {
  return knex.transaction(async (trx) => {
    const site = await lockSite(trx, siteId)
    if (!site) return { outcome: 'no-site' }
    const checked = checkPlan({ ...site.plan, cables: [...site.plan.cables, ...cables] })
    if (!checked.ok) return { outcome: 'refused', faults: checked.faults }
    const revision = site.revision + 1
    const place = await placesIn(trx, 'cables', siteId)
    await writeCables(trx, siteId, cables, place, revision)
    await setRevision(trx, siteId, revision)
    return { outcome: 'saved', revision }
  })
}

async function writeCables(
  trx: Knex.Transaction,
  siteId: string,
  cables: readonly Cable[],
  place: (id: string) => number,
  revision: number,
): Promise<void> {
  await fill(
    trx,
    'cables',
    cables.map((cable) => ({ ...cableRow(siteId, cable, place(cable.id)), revision })),
  )
  await fill(
    trx,
    'evidence',
    cables.flatMap((cable) => evidenceRows(siteId, cable)),
  )
}

/** The revision at which a cable last changed, for a form on it; null where there is no such cable. */
export async function revisionOfCable(knex: Knex, siteId: string, cableId: string): Promise<number | null> {
  const row = await knex('cables').where({ site_id: siteId, id: cableId }).first('revision')
  return row?.revision ?? null
}

/**
 * Saves what a cable is; its evidence only grows, so what the form adds to it is appended and readings that came in meanwhile stay.
 * `base` is the cable's own revision the form was made from.
 */
export async function saveCable(
  knex: Knex,
  siteId: string,
  base: number,
  cable: Omit<Cable, 'evidence'>,
  learned: readonly Evidence[],
): Promise<Saved | Refusal | { outcome: 'conflict' }> {
  return knex.transaction(async (trx) => {
    const site = await lockSite(trx, siteId)
    if (!site) return { outcome: 'no-site' }
    const before = site.plan.cables.find((each) => each.id === cable.id)
    const row = await trx('cables').where({ site_id: siteId, id: cable.id }).first('revision', 'position')
    if (!before || row.revision !== base) return { outcome: 'conflict' }
    const after: Cable = { ...cable, evidence: [...before.evidence, ...learned] }
    const checked = checkPlan(withCable(site.plan, after))
    if (!checked.ok) return { outcome: 'refused', faults: checked.faults }
    const revision = site.revision + 1
    await trx('cables')
      .where({ site_id: siteId, id: cable.id })
      .update({ ...cableRow(siteId, after, row.position), revision })
    await appendEvidence(trx, siteId, cable.id, learned)
    await setRevision(trx, siteId, revision)
    return { outcome: 'saved', revision }
  })
}

const withCable = (plan: Plan, cable: Cable): Plan => ({
  ...plan,
  cables: plan.cables.map((each) => (each.id === cable.id ? cable : each)),
})

/** Writes evidence behind what a cable has. The caller holds the site. Answers false where the cable has as much as it keeps. */
export async function appendEvidence(
  trx: Knex.Transaction,
  siteId: string,
  cableId: string,
  evidence: readonly Evidence[],
): Promise<boolean> {
  if (evidence.length === 0) return true
  const owner = { site_id: siteId, cable_id: cableId }
  const [found] = await trx('evidence').where(owner).max({ last: 'position' }).count({ count: '*' })
  if (Number(found?.count ?? 0) + evidence.length > MOST_EVIDENCE) return false
  const from = found?.last === null || found?.last === undefined ? 0 : Number(found.last) + 1
  await fill(trx, 'evidence', evidenceRows(siteId, { id: cableId, evidence }, from))
  return true
}

/** Adds evidence to one cable; what others add at the same time is kept too. */
export async function addEvidence(
  knex: Knex,
  siteId: string,
  cableId: string,
  evidence: readonly Evidence[],
): Promise<Saved | Refusal> {
  return knex.transaction(async (trx) => {
    const held = await holdSite(trx, siteId)
    if (held === null) return { outcome: 'no-site' }
    const cable = await trx('cables').where({ site_id: siteId, id: cableId }).first('id')
    if (!cable) return refused('cable', 'the cable is no longer there')
    if (!(await appendEvidence(trx, siteId, cableId, evidence))) return refused('evidence', TOO_MUCH)
    await setRevision(trx, siteId, held + 1)
    return { outcome: 'saved', revision: held + 1 }
  })
}

export const TOO_MUCH = `a cable keeps ${MOST_EVIDENCE} pieces of evidence, and this one has them`

/** What may be done to many cables at once. */
export type BulkChange =
  | { change: 'stand'; standing: Cable['standing'] }
  /** New tags in the order of the list: "C-0100", "C-0101" and on. */
  | { change: 'tag'; prefix: string; first: number; digits: number }
  | { change: 'delete' }

type Undo = {
  cables: { id: string; tag: string; standing: Cable['standing'] }[]
  deleted: { cable: Cable; position: number }[]
}

export type Changed = { outcome: 'changed'; token: string; count: number }

/** Changes many cables in one transaction, and keeps what they were so that `restoreCables` can put it back. */
export async function changeCables(
  knex: Knex,
  siteId: string,
  ids: readonly string[],
  change: BulkChange,
): Promise<Changed | Refusal> {
  return knex.transaction(async (trx) => {
    const site = await lockSite(trx, siteId)
    if (!site) return { outcome: 'no-site' }
    const wanted = new Map(ids.map((id, at) => [id, at]))
    const chosen = site.plan.cables
      .filter((cable) => wanted.has(cable.id))
      .sort((one, other) => (wanted.get(one.id) ?? 0) - (wanted.get(other.id) ?? 0))
    const after = new Map(chosen.map((cable, at) => [cable.id, changedCable(cable, change, at)]))
    const cables = site.plan.cables.flatMap((cable) => (after.has(cable.id) ? (after.get(cable.id) ?? []) : [cable]))
    const gone = change.change === 'delete'
    const held = gone ? chosen.flatMap((cable) => whatHolds(site.plan, cable)) : []
    if (held.length > 0) return { outcome: 'refused', faults: held }
    const checked = checkPlan({ ...site.plan, cables })
    if (!checked.ok) return { outcome: 'refused', faults: checked.faults }
    const revision = site.revision + 1
    const place = await placesIn(trx, 'cables', siteId)
    const undo: Undo = {
      cables: gone ? [] : chosen.map(({ id, tag, standing }) => ({ id, tag, standing })),
      deleted: gone ? chosen.map((cable) => ({ cable, position: place(cable.id) })) : [],
    }
    if (gone)
      await trx('cables')
        .where({ site_id: siteId })
        .whereIn('id', [...after.keys()])
        .delete()
    else
      await updateCables(
        trx,
        siteId,
        [...after.values()].filter((cable) => cable !== null),
        revision,
      )
    const token = randomUUID()
    await trx('removals').insert({ site_id: siteId, token, body: JSON.stringify(undo) })
    await setRevision(trx, siteId, revision)
    return { outcome: 'changed', token, count: chosen.length }
  })
}

/** What a cable is still part of, which keeps it from being deleted; nobody should find out from a dangling reference. */
function whatHolds({ runs, sessions }: Plan, { id, tag }: Cable): { path: string; reason: string }[] {
  const inRuns = runs
    .filter(({ leads, proofs }) =>
      [leads.map(({ cable }) => cable), ...proofs.map((proof) => proof.leads)].flat().includes(id),
    )
    .map((run) => `${tag} lies or was proved in run ${run.tag}`)
  const inSessions = sessions
    .filter(({ cables }) => cables.includes(id))
    .map((session) => `${tag} is in the session "${session.name}"`)
  return [...inRuns, ...inSessions].map((reason) => ({ path: 'cables', reason }))
}

function changedCable(cable: Cable, change: BulkChange, at: number): Cable | null {
  switch (change.change) {
    case 'stand':
      return { ...cable, standing: change.standing }
    case 'tag':
      return { ...cable, tag: `${change.prefix}${String(change.first + at).padStart(change.digits, '0')}` }
    case 'delete':
      return null
  }
}

/** Tags and standings of many cables, without two of them ever sharing a tag on the way. */
async function updateCables(
  trx: Knex.Transaction,
  siteId: string,
  cables: readonly Pick<Cable, 'id' | 'tag' | 'standing'>[],
  revision: number,
): Promise<void> {
  const rows: { id: string; tag: string }[] = await trx('cables').where({ site_id: siteId }).select('id', 'tag')
  const tags = new Map(rows.map((row) => [row.id, row.tag]))
  const retagged = cables.filter((cable) => tags.get(cable.id) !== cable.tag)
  const ids = retagged.map((cable) => cable.id)
  await trx('cables')
    .where({ site_id: siteId })
    .whereIn('id', ids)
    .update({ tag: trx.raw("CONCAT('~', LEFT(MD5(id), 20))") })
  for (const { id, tag } of retagged) await trx('cables').where({ site_id: siteId, id }).update({ tag })
  for (const standing of new Set(cables.map((cable) => cable.standing))) {
    const alike = cables.filter((cable) => cable.standing === standing).map((cable) => cable.id)
    await trx('cables').where({ site_id: siteId }).whereIn('id', alike).update({ standing, revision })
  }
}

export type Restored = { outcome: 'restored'; count: number } | { outcome: 'gone' }

/** Puts back what `changeCables` changed, as far as it still fits the site. */
export async function restoreCables(knex: Knex, siteId: string, token: string): Promise<Restored | Refusal> {
  return knex.transaction(async (trx) => {
    const site = await lockSite(trx, siteId)
    const row = await trx('removals').where({ site_id: siteId, token }).first('body')
    const undo = row?.body as Undo | undefined
    if (!site || !undo?.cables) return { outcome: 'gone' }
    const before = new Map(undo.cables.map((cable) => [cable.id, cable]))
    const known = new Set(site.plan.cables.map((cable) => cable.id))
    const returning = undo.deleted.filter(({ cable }) => !known.has(cable.id))
    const cables = site.plan.cables.map((cable) => ({ ...cable, ...before.get(cable.id) }))
    const checked = checkPlan({ ...site.plan, cables: [...cables, ...returning.map(({ cable }) => cable)] })
    if (!checked.ok) return { outcome: 'refused', faults: checked.faults }
    const revision = site.revision + 1
    await updateCables(
      trx,
      siteId,
      undo.cables.filter((cable) => known.has(cable.id)),
      revision,
    )
    const positions = new Map(returning.map(({ cable, position }) => [cable.id, position]))
    await writeCables(
      trx,
      siteId,
      returning.map(({ cable }) => cable),
      (id) => positions.get(id) ?? 0,
      revision,
    )
    await trx('removals').where({ token }).delete()
    await setRevision(trx, siteId, revision)
    return { outcome: 'restored', count: undo.cables.length + returning.length }
  })
}
