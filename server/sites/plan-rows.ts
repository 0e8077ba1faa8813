import type { Knex } from 'knex'
import { PLAN_FORMAT, PLAN_VERSION, type Plan } from '../../core/plan/plan'
import { policySchema } from '../../core/plan/policy'
import {
  cableOf,
  cableRow,
  deviceOf,
  deviceRow,
  evidenceRows,
  kindRow,
  leadRows,
  needOf,
  needRow,
  pinRows,
  type Row,
  runOf,
  runRow,
  sessionRow,
} from './rows'

/** A site as it stands in the database: its plan, and the revisions that saves are checked against. */
export type StoredPlan = {
  plan: Plan
  revision: number
  /** The site's revision at which each run last changed. */
  runRevisions: Record<string, number>
}

/** Sites that were read last, each good for as long as the database still has it at that revision. */
const lastRead = new WeakMap<Knex, Map<string, { madeAt: string; stored: StoredPlan }>>()
const MOST_KEPT = 8

/**
 * Reads a whole site in one consistent view, a query a table. Null where there is no such site. Whatever changes a plan raises its
 * revision, so a site that stands at the revision it was last read at is not read again, however many processes serve it.
 */
export async function readPlan(knex: Knex, siteId: string): Promise<StoredPlan | null> {
  const site: Row | undefined = await knex('sites').where({ id: siteId }).first('revision', 'created_at')
  if (!site) return null
  const kept = lastRead.get(knex) ?? new Map()
  lastRead.set(knex, kept)
  const known = kept.get(siteId)
  kept.delete(siteId)
  const isFresh = known?.stored.revision === site.revision && known?.madeAt === String(site.created_at)
  const stored = isFresh
    ? known.stored
    : await knex.transaction((trx) => readPlanWithin(trx, siteId), { readOnly: true })
  if (!stored) return null
  kept.set(siteId, { madeAt: String(site.created_at), stored })
  // a map keeps its order: the first is the one that was not asked for the longest
  if (kept.size > MOST_KEPT) kept.delete(kept.keys().next().value ?? '')
  return stored
}

export async function readPlanWithin(trx: Knex.Transaction, siteId: string): Promise<StoredPlan | null> {
  const site: Row | undefined = await trx('sites').where({ id: siteId }).first()
  if (!site) return null
  const all = (table: string): Promise<Row[]> => trx(table).where({ site_id: siteId }).orderBy('position')
  const places = await all('places')
  const devices = await all('devices')
  const ports = byOwner(await all('ports'), 'device_id')
  const kinds = await all('cable_kinds')
  const cables = await all('cables')
  const evidence = byOwner(await all('evidence'), 'cable_id')
  const runs = await all('runs')
  const leads = byOwner(await all('run_leads'), 'run_id')
  const needs = await all('needs')
  const pins = byOwner(await all('need_pins'), 'need_id')
  const sessions = await all('sessions')
  const plan: Plan = {
    format: PLAN_FORMAT,
    version: PLAN_VERSION,
    site: { id: site.id, name: site.name, ...(site.note ? { note: site.note } : {}) },
    // fields that are newer than the row take their defaults
    policy: policySchema.parse(site.policy),
    places: places.map((row) => ({
      id: row.id,
      name: row.name,
      mains: Boolean(row.mains),
      ...(row.note ? { note: row.note } : {}),
    })),
    devices: devices.map((row) => deviceOf(row, ports.get(row.id) ?? [])),
    // a kind written before kinds had a stock
    kinds: kinds.map((row) => ({ stock: [], ...row.spec })),
    cables: cables.map((row) => cableOf(row, evidence.get(row.id) ?? [])),
    runs: runs.map((row) => runOf(row, leads.get(row.id) ?? [])),
    needs: needs.map((row) => needOf(row, pins.get(row.id) ?? [])),
    sessions: sessions.map((row) => row.spec),
  }
  return {
    plan,
    revision: site.revision,
    runRevisions: Object.fromEntries(runs.map((row) => [row.id, Number(row.revision)])),
  }
}

function byOwner(rows: readonly Row[], owner: string): Map<string, Row[]> {
  const lists = new Map<string, Row[]>()
  for (const row of rows) {
    const list = lists.get(row[owner])
    if (list) list.push(row)
    else lists.set(row[owner], [row])
  }
  return lists
}

/** Writes a plan as a new site. The caller holds the transaction and has made sure that the id is free. */
export async function insertPlan(trx: Knex.Transaction, plan: Plan): Promise<void> {
  const { site } = plan
  await trx('sites').insert({
    id: site.id,
    name: site.name,
    note: site.note ?? null,
    policy: JSON.stringify(plan.policy),
    revision: 1,
  })
  const placed = <T>(items: readonly T[], rowOf: (item: T, position: number) => Row): Row[] => items.map(rowOf)
  await fill(
    trx,
    'places',
    placed(plan.places, ({ id, name, mains, note }, position) => ({
      site_id: site.id,
      id,
      position,
      name,
      mains,
      note: note ?? null,
    })),
  )
  await fill(
    trx,
    'devices',
    placed(plan.devices, (device, position) => deviceRow(site.id, device, position)),
  )
  const ports = plan.devices.flatMap((device) =>
    device.ports.map((port) => ({ device_id: device.id, id: port.id, spec: JSON.stringify(port) })),
  )
  await fill(
    trx,
    'ports',
    placed(ports, (port, position) => ({ site_id: site.id, position, ...port })),
  )
  await fill(
    trx,
    'cable_kinds',
    placed(plan.kinds, (kind, position) => kindRow(site.id, kind, position)),
  )
  await fill(
    trx,
    'cables',
    placed(plan.cables, (cable, position) => cableRow(site.id, cable, position)),
  )
  await fill(
    trx,
    'evidence',
    plan.cables.flatMap((cable) => evidenceRows(site.id, cable)),
  )
  await fill(
    trx,
    'runs',
    placed(plan.runs, (run, position) => runRow(site.id, run, position, 1)),
  )
  await fill(
    trx,
    'run_leads',
    plan.runs.flatMap((run) => leadRows(site.id, run)),
  )
  await fill(
    trx,
    'needs',
    placed(plan.needs, (need, position) => needRow(site.id, need, position)),
  )
  await fill(
    trx,
    'need_pins',
    plan.needs.flatMap((need) => pinRows(site.id, need)),
  )
  await fill(
    trx,
    'sessions',
    placed(plan.sessions, (session, position) => sessionRow(site.id, session, position)),
  )
}

/** Rows a statement: far below the server's packet limit, and few round trips. */
const ROWS_AT_ONCE = 500

export async function fill(trx: Knex.Transaction, table: string, rows: readonly Row[]): Promise<void> {
  for (let at = 0; at < rows.length; at += ROWS_AT_ONCE) await trx(table).insert(rows.slice(at, at + ROWS_AT_ONCE))
}
