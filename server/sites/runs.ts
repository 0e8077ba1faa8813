import { randomUUID } from 'node:crypto'
import type { Knex } from 'knex'
import { directNeeds, joinsSame, withRun } from '../../core/plan/change'
import type { Need } from '../../core/plan/need'
import type { Plan } from '../../core/plan/plan'
import { readPlan as checkPlan } from '../../core/plan/read'
import type { Run } from '../../core/plan/run'
import { lockSite, placesIn } from './lock'
import { fill } from './plan-rows'
import { leadRows, needRow, pinRows, runRow } from './rows'

/** A run with the needs that flow directly between its two devices: what one form edits and one save writes. */
export type RunChange = { run: Run; needs: Need[] }

export type SaveOutcome =
  | { outcome: 'saved'; revision: number }
  /** Somebody changed or deleted this very run since the form was opened; nothing was written. */
  | { outcome: 'conflict'; theirs: RunChange | null; revision: number }
  /** The change does not fit the site as it is now; nothing was written. */
  | { outcome: 'refused'; faults: { path: string; reason: string }[] }
  | { outcome: 'no-site' }

/**
 * Saves one run and its direct needs in one transaction. `base` is the site's revision the form was made from: changes to other
 * runs since then do not matter, a change to this one is a conflict. `base` of null means: this is a new run.
 */
export async function saveRun(
  knex: Knex,
  siteId: string,
  base: number | null,
  change: RunChange,
): Promise<SaveOutcome> {
  return knex.transaction(async (trx) => {
    const site = await lockSite(trx, siteId)
    if (!site) return { outcome: 'no-site' }
    const { plan, revision, runRevisions } = site
    const changedAt = runRevisions[change.run.id]
    const conflict = base === null ? changedAt !== undefined : changedAt === undefined || changedAt > base
    if (conflict) return { outcome: 'conflict', theirs: current(plan, change.run.id), revision }
    const checked = checkPlan(withRun(plan, change.run, change.needs))
    if (!checked.ok) return { outcome: 'refused', faults: checked.faults }
    const next = revision + 1
    await writeRun(trx, plan, change, next)
    await trx('sites').where({ id: siteId }).update({ revision: next })
    return { outcome: 'saved', revision: next }
  })
}

/** The site's revision now, for a form on one of its runs; null where there is no such run. */
export async function revisionOfRun(knex: Knex, siteId: string, runId: string): Promise<number | null> {
  const found = await knex('runs')
    .join('sites', 'sites.id', 'runs.site_id')
    .where({ 'runs.site_id': siteId, 'runs.id': runId })
    .first('sites.revision')
  return found?.revision ?? null
}

export type RemoveOutcome = { outcome: 'removed'; token: string; tag: string } | { outcome: 'gone' }

type Removal = RunChange & { position: number; pins: { need: string; through: string[] }[] }

/** Deletes a run and the needs that have no other way between its devices, and keeps both so that `restoreRun` can put them back. */
export async function removeRun(knex: Knex, siteId: string, runId: string): Promise<RemoveOutcome> {
  return knex.transaction(async (trx) => {
    const site = await lockSite(trx, siteId)
    const run = site?.plan.runs.find((candidate) => candidate.id === runId)
    if (!site || !run) return { outcome: 'gone' }
    const twin = site.plan.runs.some((other) => other.id !== runId && joinsSame(other, run))
    const needs = twin ? [] : directNeeds(site.plan, run)
    const pins = site.plan.needs
      .filter((need) => need.through?.includes(runId))
      .map((need) => ({ need: need.id, through: need.through ?? [] }))
    const removal: Removal = { run, needs, pins, position: (await placesIn(trx, 'runs', siteId))(runId) }
    const token = randomUUID()
    await trx('removals').insert({ site_id: siteId, token, body: JSON.stringify(removal) })
    await trx('needs')
      .where({ site_id: siteId })
      .whereIn(
        'id',
        needs.map((need) => need.id),
      )
      .delete()
    await trx('runs').where({ site_id: siteId, id: runId }).delete()
    await trx('sites').where({ id: siteId }).increment('revision', 1)
    return { outcome: 'removed', token, tag: run.tag }
  })
}

export type RestoreOutcome =
  | { outcome: 'restored'; runId: string; tag: string }
  | { outcome: 'refused'; faults: { path: string; reason: string }[] }
  | { outcome: 'gone' }

/** Puts back what `removeRun` took, if its tag, cables and ports are still there for it. */
export async function restoreRun(knex: Knex, siteId: string, token: string): Promise<RestoreOutcome> {
  return knex.transaction(async (trx) => {
    const site = await lockSite(trx, siteId)
    const row = await trx('removals').where({ site_id: siteId, token }).first('body')
    if (!site || !row) return { outcome: 'gone' }
    const removal = row.body as Removal
    const checked = checkPlan(withRun(site.plan, removal.run, removal.needs))
    if (!checked.ok) return { outcome: 'refused', faults: checked.faults }
    const next = site.revision + 1
    await writeRun(trx, site.plan, removal, next, removal.position)
    for (const { need, through } of removal.pins) {
      if (!site.plan.needs.some((other) => other.id === need)) continue
      await trx('need_pins').where({ site_id: siteId, need_id: need }).delete()
      await fill(
        trx,
        'need_pins',
        through.map((run_id, position) => ({ site_id: siteId, need_id: need, position, run_id })),
      )
    }
    await trx('removals').where({ token }).delete()
    await trx('sites').where({ id: siteId }).update({ revision: next })
    return { outcome: 'restored', runId: removal.run.id, tag: removal.run.tag }
  })
}

/** Writes a run and its needs, each where it stood in its list; what is new goes to the end, or to `at`. */
async function writeRun(
  trx: Knex.Transaction,
  plan: Plan,
  { run, needs }: RunChange,
  revision: number,
  at?: number,
): Promise<void> {
  const site_id = plan.site.id
  const before = plan.runs.find((other) => other.id === run.id)
  const runPosition = await placesIn(trx, 'runs', site_id)
  const needPosition = await placesIn(trx, 'needs', site_id)
  const row = runRow(site_id, run, at ?? runPosition(run.id), revision)
  if (before) await trx('runs').where({ site_id, id: run.id }).update(row)
  else await trx('runs').insert(row)
  await trx('run_leads').where({ site_id, run_id: run.id }).delete()
  await fill(trx, 'run_leads', leadRows(site_id, run))

  const old = before ? directNeeds(plan, before).map((need) => need.id) : []
  await trx('needs').where({ site_id }).whereIn('id', old).delete()
  await fill(
    trx,
    'needs',
    needs.map((need) => needRow(site_id, need, needPosition(need.id))),
  )
  await fill(
    trx,
    'need_pins',
    needs.flatMap((need) => pinRows(site_id, need)),
  )
}

function current(plan: Plan, runId: string): RunChange | null {
  const run = plan.runs.find((candidate) => candidate.id === runId)
  return run ? { run, needs: directNeeds(plan, run) } : null
}
