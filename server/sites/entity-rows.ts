import { generateNKeysBetween } from 'fractional-indexing'
import type { Knex } from 'knex'
import { type Change, type Copy, type Edit, entityKey, type LogPosition } from '../../core/change/change'
import { POLICY_ID, SITE_ID } from '../../core/change/copy'
import type { ChangeName } from '../../core/change/words'
import { entityOf, type Subject } from '../../core/observe/every'
import type { Observation } from '../../core/observe/observation'
import { type Entity, entityLists, isPlanList, LIST_NAMES, type ListName } from '../../core/plan/entity'
import { PLAN_FORMAT, PLAN_LISTS, PLAN_VERSION, type Plan, type PlanList } from '../../core/plan/plan'
import { upgradeEntity, WrittenByNewer } from '../../core/plan/upgrade'
import { foldTag } from '../../core/vocabulary/fields'
import { Failure } from '../failure'

/** A site as its row says it. */
export type SiteRow = { id: string; identity: string; place: LogPosition; bytes: number; grown: number }

// biome-ignore lint/suspicious/noExplicitAny: a row is whatever its table holds; what comes of it is typed by the function that reads it
type Row = Record<string, any>

export async function siteRow(knex: Knex, siteId: string): Promise<SiteRow | null> {
  const row = await knex('sites')
    .where({ id: siteId })
    .first(...SITE_COLUMNS)
  return row ? siteRowOf(row) : null
}

/** What of a site's row tells which copy of it is the latest. */
export const SITE_COLUMNS = ['id', 'identity', 'place', 'bytes', 'grown'] as const
/** The row of a site as its columns have it; null where a join found none. */
// biome-ignore lint/suspicious/noExplicitAny: a row is whatever its table holds
export const siteRowOf = (row: Record<string, any>): SiteRow | null =>
  row.id === null
    ? null
    : { id: row.id, identity: row.identity, place: row.place, bytes: Number(row.bytes), grown: Number(row.grown) }

/** Reads a whole site as it stands. The caller sees to it that it reads one moment. */
export async function readCopy(trx: Knex, { id, place, bytes, grown }: SiteRow): Promise<Copy> {
  const rows: Row[] = await trx('entities')
    .where({ site_id: id })
    .orderBy('list')
    .orderBy('rank')
    .select('list', 'id', 'revision', 'version', 'body')
  const lists = new Map<ListName, Entity[]>(LIST_NAMES.map((list) => [list, []]))
  const revisions = new Map<string, LogPosition>()
  for (const row of rows) {
    lists.get(row.list)?.push(upgraded(row, row.body) as Entity)
    if (row.revision > 1 && !entityLists[row.list as ListName].grows)
      revisions.set(entityKey(row.list, row.id), row.revision)
  }
  const [site] = lists.get('site') as Plan['site'][]
  const [policy] = lists.get('policy') as Plan['policy'][]
  if (!site || !policy) throw new Error(`the site ${id} has lost what it is called or goes by`)
  const of = Object.fromEntries(PLAN_LISTS.map((list) => [list, lists.get(list) ?? []])) as Pick<Plan, PlanList>
  const plan: Plan = {
    format: PLAN_FORMAT,
    version: PLAN_VERSION,
    site,
    // fields that are newer than the row take their defaults
    policy: entityLists.policy.schema.parse(policy),
    ...of,
  }
  return { plan, place, revisions, bytes, grown }
}

/** A line of the log without its edits. */
export type LogLine = Omit<Change, 'edits'> & {
  place: LogPosition
  things: number
  /** Other sites that it changed as well. */
  along?: readonly string[]
}

export const logLineOf = (row: Row): LogLine => ({
  place: row.place,
  id: row.id,
  at: new Date(`${String(row.at).replace(' ', 'T')}Z`).toISOString(),
  by: row.by_name,
  what: { name: row.name as ChangeName, about: row.about },
  things: row.things,
  ...(row.undoes ? { undoes: row.undoes } : {}),
  ...(row.along ? { along: row.along } : {}),
})

export const LOG_COLUMNS = ['place', 'id', 'at', 'by_name', 'name', 'about', 'undoes', 'things', 'along'] as const

/** As what an observation is about stands in the log. */
const subjectKey = ({ subject }: Observation): string => {
  const { list, id } = entityOf(subject)
  return entityKey(list, id)
}

/** A body as it was written, as this Hallway has it; the log itself is never rewritten. */
export function upgraded({ list, version }: Row, body: unknown): unknown {
  if (body === null) return null
  try {
    return upgradeEntity(list, body, version)
  } catch (error) {
    if (!(error instanceof WrittenByNewer)) throw error
    throw new Failure(
      `A newer Hallway wrote this site, and this one cannot read all of it. Nothing was changed. Open it there, or update this Hallway: ${error.message}.`,
    )
  }
}

const editOf = (row: Row): Edit => ({
  list: row.list,
  id: row.id,
  base: null,
  value: upgraded(row, row.value) as Edit['value'],
  ...(row.moved ? { before: row.before_id } : {}),
})

/** The edits of changes behind a place, in the order they were made, by the place of their change. */
export async function editsSince(
  trx: Knex,
  siteId: string,
  since: LogPosition,
  upTo: LogPosition | null = null,
): Promise<Map<LogPosition, Edit[]>> {
  const rows: Row[] = await trx('edits')
    .where({ site_id: siteId })
    .where('place', '>', since)
    .modify((query) => void (upTo === null || query.where('place', '<=', upTo)))
    .orderBy('place')
    .orderBy('seq')
    .select('place', 'list', 'id', 'version', 'value', 'moved', 'before_id')
  const byPlace = new Map<LogPosition, Edit[]>()
  for (const row of rows) {
    const list = byPlace.get(row.place)
    if (list) list.push(editOf(row))
    else byPlace.set(row.place, [editOf(row)])
  }
  return byPlace
}

/** What the observations are about that came or went behind a place. */
export async function subjectsSince(trx: Knex, siteId: string, since: LogPosition): Promise<Subject[]> {
  const rows: Row[] = await trx('edits')
    .where({ site_id: siteId, list: 'observations' })
    .where('place', '>', since)
    .select('list', 'version', 'value', 'was')
  return rows.map((row) => (upgraded(row, row.value ?? row.was) as Observation).subject)
}

/** The edits that take a change back, as they were written with it. */
export async function inverseAt(trx: Knex, siteId: string, place: LogPosition): Promise<Edit[]> {
  const rows: Row[] = await trx('edits').where({ site_id: siteId, place }).orderBy('back_seq')
  return rows.map((row) => ({
    list: row.list,
    id: row.id,
    base: row.value === null ? null : place,
    value: upgraded(row, row.was) as Edit['value'],
    ...(row.was_moved ? { before: row.was_before_id } : {}),
  }))
}

/** What of these has changed since a place, as it stood there, by its key: one question for all of them. */
export async function entitiesWere(
  trx: Knex,
  siteId: string,
  things: readonly Pick<Edit, 'list' | 'id'>[],
  at: LogPosition,
): Promise<Map<string, Entity | null>> {
  const were = new Map<string, Entity | null>()
  for (const part of inParts(things)) {
    const first = trx('edits')
      .where({ site_id: siteId })
      .where('place', '>', at)
      .whereIn(
        ['list', 'id'],
        part.map(({ list, id }) => [list, id]),
      )
      .groupBy('list', 'id')
      .select('list', 'id', { place: trx.raw('MIN(place)') })
      .as('first')
    const rows: Row[] = await trx('edits')
      .join(first, (join) =>
        join.on('edits.list', 'first.list').on('edits.id', 'first.id').on('edits.place', 'first.place'),
      )
      .where({ 'edits.site_id': siteId })
      .select('edits.list', 'edits.id', 'edits.version', 'edits.was')
    for (const row of rows) were.set(entityKey(row.list, row.id), upgraded(row, row.was) as Entity | null)
  }
  return were
}

/** Who changed an entity last. */
export async function lastHand(
  trx: Knex,
  siteId: string,
  { list, id }: Pick<Edit, 'list' | 'id'>,
): Promise<string | null> {
  const row = await trx('edits')
    .join('changes', (join) => join.on('changes.site_id', 'edits.site_id').on('changes.place', 'edits.place'))
    .where({ 'edits.site_id': siteId, 'edits.list': list, 'edits.id': id })
    .orderBy('edits.place', 'desc')
    .first('changes.by_name')
  return row?.by_name ?? null
}

/** An instant as a column of the database takes it. */
export const columnTime = (at: string): string => at.slice(0, 23).replace('T', ' ')

/** Writes a change that fits: its line and edits in the log, the entities as they are now, and the site's place. The caller holds the site. */
export async function writeChange(
  trx: Knex.Transaction,
  siteId: string,
  change: Change,
  { copy, inverse }: { copy: Copy; inverse: readonly Edit[] },
  { digest = null, along = [] }: { digest?: string | null; along?: readonly string[] } = {},
): Promise<void> {
  const { place, plan, bytes, grown } = copy
  const site_id = siteId
  const back = new Map(inverse.map((edit, at) => [entityKey(edit.list, edit.id), { edit, at }]))
  const edits = change.edits.map((edit, seq) => {
    const undo = back.get(entityKey(edit.list, edit.id))
    return {
      site_id,
      place,
      seq,
      list: edit.list,
      id: edit.id,
      version: PLAN_VERSION,
      value: jsonOrNull(edit.value),
      moved: edit.before !== undefined,
      before_id: edit.before ?? null,
      was: jsonOrNull(undo?.edit.value ?? null),
      was_moved: undo?.edit.before !== undefined,
      was_before_id: undo?.edit.before ?? null,
      back_seq: undo?.at ?? seq,
      subject: edit.list === 'observations' ? subjectKey((edit.value ?? undo?.edit.value) as Observation) : null,
    }
  })
  await trx('changes').insert({
    site_id,
    place,
    id: change.id,
    at: columnTime(change.at),
    by_name: change.by,
    name: change.what.name,
    about: JSON.stringify(change.what.about),
    undoes: change.undoes ?? null,
    digest,
    along: along.length > 0 ? JSON.stringify(along) : null,
    things: new Set(edits.map(({ subject, list, id }) => subject ?? entityKey(list, id))).size,
  })
  await fill(trx, 'edits', edits)
  for (const list of LIST_NAMES) {
    const own = change.edits.filter((edit) => edit.list === list)
    if (own.length > 0) await writeList(trx, site_id, list, own, copy)
  }
  const { name, note, putAway } = plan.site
  await trx('sites')
    .where({ id: siteId })
    .update({ place, bytes, grown, name, note: note ?? null, put_away: putAway })
}

async function writeList(
  trx: Knex.Transaction,
  site_id: string,
  list: ListName,
  edits: readonly Edit[],
  { place, plan }: Copy,
): Promise<void> {
  const gone = edits.filter(({ value }) => value === null).map(({ id }) => id)
  for (const ids of inParts(gone)) await trx('entities').where({ site_id, list }).whereIn('id', ids).delete()
  const kept = edits.filter((edit) => edit.value !== null)
  const ranks = isPlanList(list) ? await ranksFor(trx, site_id, list, kept, plan) : new Map<string, string>()
  const { tag } = entityLists[list] as { tag?(entity: Entity): string }
  // tags may change hands within one change, and no two may have one on the way
  if (tag) {
    for (const ids of inParts(kept.map(({ id }) => id)))
      await trx('entities').where({ site_id, list }).whereIn('id', ids).update({ tag_key: null })
  }
  const rows = kept.map(({ id, value }) => ({
    site_id,
    list,
    id,
    rank: ranks.get(id) ?? SOLE_RANK,
    revision: place,
    tag_key: tag && value ? foldTag(tag(value)) : null,
    version: PLAN_VERSION,
    body: JSON.stringify(value),
  }))
  const fixed = (row: { id: string }) => !ranks.has(row.id)
  await fill(
    trx,
    'entities',
    rows.filter((row) => !fixed(row)),
    ['rank', 'revision', 'version', 'tag_key', 'body'],
  )
  await fill(trx, 'entities', rows.filter(fixed), ['revision', 'version', 'tag_key', 'body'])
}

/** Of a list that holds one. */
const SOLE_RANK = 'a0'

/** Ranks for what is new in a list or has moved, between those of its neighbours; what stays where it stood keeps its own. */
async function ranksFor(
  trx: Knex.Transaction,
  site_id: string,
  list: PlanList,
  edits: readonly Edit[],
  plan: Plan,
): Promise<Map<string, string>> {
  const known = new Set<string>()
  for (const ids of inParts(edits.map(({ id }) => id))) {
    const rows: Row[] = await trx('entities').where({ site_id, list }).whereIn('id', ids).select('id')
    for (const { id } of rows) known.add(id)
  }
  const asked = new Set(edits.filter(({ id, before }) => before !== undefined || !known.has(id)).map(({ id }) => id))
  const ranks = new Map<string, string>()
  if (asked.size === 0) return ranks
  const items = plan[list] as readonly { id: string }[]
  const tail = items.slice(-asked.size)
  if (tail.every(({ id }) => asked.has(id))) {
    const last = await trx('entities')
      .where({ site_id, list })
      .whereNotIn(
        'id',
        [...asked].filter((id) => known.has(id)),
      )
      .max({ rank: 'rank' })
      .first()
    const keys = generateNKeysBetween(last?.rank ?? null, null, tail.length)
    for (const [at, { id }] of tail.entries()) ranks.set(id, keys[at] as string)
    return ranks
  }
  const rows: Row[] = await trx('entities').where({ site_id, list }).select('id', 'rank')
  const standing = new Map(rows.filter(({ id }) => !asked.has(id)).map((row) => [row.id, row.rank as string]))
  let left: string | null = null
  for (let at = 0; at < items.length; at += 1) {
    const own = standing.get(items[at]?.id ?? '')
    if (own !== undefined) {
      left = own
      continue
    }
    let end = at
    while (end < items.length && !standing.has(items[end]?.id ?? '')) end += 1
    const right = standing.get(items[end]?.id ?? '') ?? null
    for (const [offset, rank] of generateNKeysBetween(left, right, end - at).entries())
      ranks.set(items[at + offset]?.id ?? '', rank)
    at = end - 1
  }
  return ranks
}

const jsonOrNull = (value: unknown): string | null => (value === null ? null : JSON.stringify(value))

/** Rows a statement: far below the server's packet limit, and few round trips. */
const ROWS_AT_ONCE = 500
/** Bytes a statement, as an entity may be large. */
const BYTES_AT_ONCE = 1_000_000

async function fill(trx: Knex.Transaction, table: string, rows: readonly Row[], merge?: string[]): Promise<void> {
  let part: Row[] = []
  let bytes = 0
  const send = async () => {
    if (part.length === 0) return
    const insert = trx(table).insert(part)
    await (merge ? insert.onConflict(['site_id', 'list', 'id']).merge(merge) : insert)
    part = []
    bytes = 0
  }
  for (const row of rows) {
    part.push(row)
    bytes += String(row.body ?? row.value ?? '').length + String(row.was ?? '').length
    if (part.length >= ROWS_AT_ONCE || bytes >= BYTES_AT_ONCE) await send()
  }
  await send()
}

function* inParts<T>(items: readonly T[]): Iterable<readonly T[]> {
  for (let at = 0; at < items.length; at += ROWS_AT_ONCE) yield items.slice(at, at + ROWS_AT_ONCE)
}

/** Writes a plan as a new site whose first change it is. The caller has made sure that the id is free. */
export async function insertSite(
  trx: Knex.Transaction,
  copy: Copy,
  identity: string,
  change: Change,
  digest: string | null,
): Promise<void> {
  const { site, policy } = copy.plan
  await trx('sites').insert({
    id: site.id,
    identity,
    name: site.name,
    note: site.note ?? null,
    put_away: site.putAway,
    place: 1,
    bytes: copy.bytes,
    grown: copy.grown,
  })
  const alone = { site_id: site.id, rank: SOLE_RANK, revision: 1, version: PLAN_VERSION }
  await fill(trx, 'entities', [
    { ...alone, list: 'site', id: SITE_ID, body: JSON.stringify(site) },
    { ...alone, list: 'policy', id: POLICY_ID, body: JSON.stringify(policy) },
  ])
  await writeChange(trx, site.id, change, { copy, inverse: [] }, { digest })
}
