import type { Knex } from 'knex'
import type { RowDataPacket } from 'mysql2'
import { isLockTrouble } from './connection'

/** How far a cluster of databases has come: which cluster it is, and how many writes it has agreed on. */
export type ClusterPlace = { cluster: string; count: number }

/** By pool: whether the database is one node of a cluster, and a place that this node is known to have reached. */
const known = new WeakMap<Knex, { isCluster: Promise<boolean>; reached: ClusterPlace | null }>()

function knownOf(knex: Knex) {
  const found = known.get(knex)
  if (found) return found
  const isCluster = rowsOf(knex, "SHOW GLOBAL VARIABLES LIKE 'wsrep_provider'").then(([row]) =>
    String(row?.Value ?? '').endsWith('.so'),
  )
  const made = { isCluster, reached: null as ClusterPlace | null }
  known.set(knex, made)
  // a database that was away is asked again
  isCluster.catch(() => known.delete(knex))
  return made
}

const rowsOf = (knex: Knex, sql: string): Promise<RowDataPacket[]> => knex.raw(sql).then(([rows]) => rows)

/** How far the cluster has come, as the node knows that this process asks; null where the database is one by itself. */
export async function clusterPlace(knex: Knex): Promise<ClusterPlace | null> {
  if (!(await knownOf(knex).isCluster)) return null
  const rows = await rowsOf(
    knex,
    "SHOW GLOBAL STATUS WHERE Variable_name IN ('wsrep_last_committed', 'wsrep_cluster_state_uuid')",
  )
  const told = new Map(rows.map(({ Variable_name: name, Value: value }) => [String(name), String(value)]))
  return {
    cluster: told.get('wsrep_cluster_state_uuid') ?? '',
    count: Number(told.get('wsrep_last_committed') ?? Number.NaN),
  }
}

/**
 * Waits until the node has what the whole cluster agreed on by now (Galera's wsrep_sync_wait), so that what is read next is no older. With a place: only where
 * the node is not known to have come so far. A database by itself is never behind.
 */
export async function catchUpWithCluster(knex: Knex, place?: ClusterPlace): Promise<void> {
  const own = knownOf(knex)
  if (!(await own.isCluster)) return
  if (place && own.reached?.cluster === place.cluster && own.reached.count >= place.count) return
  try {
    await knex.raw('SET STATEMENT wsrep_sync_wait = 1 FOR SELECT 1 FROM settings LIMIT 1')
  } catch (error) {
    // a node that does not get there in time is as good as away
    throw isLockTrouble(error)
      ? Object.assign(new Error('the node is behind its cluster'), { code: 'ETIMEDOUT' })
      : error
  }
  // what was claimed may be made up: only what the node says is kept
  if (place) own.reached = await clusterPlace(knex)
}

/** A place as a browser carries it. */
export const writePlace = ({ cluster, count }: ClusterPlace): string => `${cluster}:${count}`

export function readPlace(text: string | null): ClusterPlace | null {
  const [, cluster, count] = /^([0-9a-f-]{36}):(\d{1,15})$/.exec(text ?? '') ?? []
  return cluster && count ? { cluster, count: Number(count) } : null
}
