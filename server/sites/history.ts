import type { Knex } from 'knex'
import { applyChange } from '../../core/change/apply'
import { type Copy, type Edit, entityKey, type LogPosition } from '../../core/change/change'
import { entityAt } from '../../core/change/copy'
import { rebase } from '../../core/change/merge'
import { isWithinUndo, UNDO_CHANGES, UNDO_DAYS } from '../../core/change/undo-ends'
import { changeWords } from '../../core/change/words'
import type { Entity, ListName } from '../../core/plan/entity'
import { idField } from '../../core/vocabulary/fields'
import { changeSites, type Hand, type MakeChange, type Outcome, refused } from './change-site'
import { entitiesWere, inverseAt, LOG_COLUMNS, type LogLine, lastHand, logLineOf } from './entity-rows'

export type HistoryLine = LogLine & {
  /** What it touched, the first of it; `things` is how much it was. */
  touched: { list: ListName; id: string; name: string | null }[]
  /** Why it can no longer be undone, as far as its age tells; whether it still fits is found when it is asked for. */
  kept: string | null
}

export type HistoryPage = { lines: HistoryLine[]; older: LogPosition | null; newer: boolean }

const LINES = 30
const TOUCHED_SHOWN = 6
/** Edits of a change that are looked at for what it touched. */
const MOST_LOOKED_AT = 40

export type HistoryAsked = { before?: LogPosition | undefined; of?: { list: ListName; id: string } | undefined }

/** Changes of a site, the latest first; of one entity where that is asked. */
export async function historyOf(
  knex: Knex,
  siteId: string,
  copy: Copy,
  { before, of }: HistoryAsked,
): Promise<HistoryPage> {
  const query = knex('changes').where({ 'changes.site_id': siteId }).where('changes.place', '<=', copy.place)
  if (before !== undefined) query.where('changes.place', '<', before)
  if (of)
    query.whereIn(
      'changes.place',
      knex('edits')
        .where({ site_id: siteId, list: of.list, id: of.id })
        .select('place')
        .union(
          knex('edits')
            .where({ site_id: siteId, subject: entityKey(of.list, of.id) })
            .select('place'),
        ),
    )
  const rows = await query
    .orderBy('place', 'desc')
    .limit(LINES + 1)
    .select(LOG_COLUMNS)
  const shown = rows.slice(0, LINES).map(logLineOf)
  const touched = await touchedBy(knex, siteId, copy, shown)
  const now = { place: copy.place, at: new Date().toISOString() }
  return {
    lines: shown.map((line) => ({ ...line, touched: touched.get(line.place) ?? [], kept: whyKept(line, now) })),
    older: rows.length > LINES ? (shown.at(-1)?.place ?? null) : null,
    newer: before !== undefined,
  }
}

/** The first things that each of these changes touched, in one question; of an observation, what it is about. */
async function touchedBy(
  knex: Knex,
  siteId: string,
  copy: Copy,
  lines: readonly LogLine[],
): Promise<Map<LogPosition, HistoryLine['touched']>> {
  const said = (field: string) => knex.raw('JSON_VALUE(COALESCE(value, was), ?)', [`$.${field}`])
  const rows: { place: LogPosition; list: ListName; id: string; subject: string | null; tag: string; name: string }[] =
    await knex('edits')
      .where({ site_id: siteId })
      .whereIn(
        'place',
        lines.map(({ place }) => place),
      )
      .where('seq', '<', MOST_LOOKED_AT)
      .orderBy(['place', 'seq'])
      .select('place', 'list', 'id', 'subject', { tag: said('tag'), name: said('name') })
  const touched = new Map<LogPosition, Map<string, HistoryLine['touched'][number]>>()
  for (const { place, list, id, subject, tag, name } of rows) {
    const things = touched.get(place) ?? new Map()
    touched.set(place, things)
    const one = subject === null ? { list, id, name: tag ?? name } : namedNow(copy, subject)
    const key = entityKey(one.list, one.id)
    if (things.size < TOUCHED_SHOWN && !things.has(key)) things.set(key, one)
  }
  return new Map([...touched].map(([place, things]) => [place, [...things.values()]]))
}

/** What an observation is about, by its key in the log, as it is called today. */
function namedNow(copy: Copy, subject: string): HistoryLine['touched'][number] {
  const cut = subject.indexOf('/')
  const [list, id] = [subject.slice(0, cut) as ListName, subject.slice(cut + 1)]
  return { list, id, name: nameOf(entityAt(copy.plan, list, id) as Named | null) }
}

type Named = { tag?: string; name?: string | undefined }
const nameOf = (entity: Named | null): string | null => entity?.tag ?? entity?.name ?? null

const BEGAN = 'It is how the site began. Put the site away instead.'

function whyKept(line: LogLine, now: { place: LogPosition; at: string }): string | null {
  if (line.place === 1) return BEGAN
  return isWithinUndo(line, now) ? null : `Undo ends after ${UNDO_CHANGES} changes or ${UNDO_DAYS} days.`
}

/** What would take a change back on the site as it stands, or why that cannot be. */
async function tryUndo(
  knex: Knex,
  siteId: string,
  copy: Copy,
  line: LogLine,
): Promise<{ edits: Edit[] } | { kept: string }> {
  const inverse = await inverseAt(knex, siteId, line.place)
  const stands = inverse.filter(({ base }) => base !== null)
  const was = await entitiesWere(knex, siteId, stands, line.place)
  const { edits, clashes } = rebase(copy, inverse, (edit) => was.get(entityKey(edit.list, edit.id)) ?? null)
  const [clash] = clashes
  if (clash) return { kept: await whoChanged(knex, siteId, clash) }
  const applied = applyChange(copy, { edits, undoes: line.id })
  if (applied.outcome === 'applied') return { edits: inverse }
  if (applied.outcome === 'refused') return { kept: `It no longer fits: ${applied.faults[0]?.reason ?? ''}.` }
  const [first] = applied.clashes
  return { kept: first ? await whoChanged(knex, siteId, first) : 'It was changed since.' }
}

async function whoChanged(
  knex: Knex,
  siteId: string,
  clash: { list: ListName; id: string; theirs: Entity | null; mine: Entity | null },
): Promise<string> {
  const name = nameOf((clash.theirs ?? clash.mine) as Named | null) ?? clash.id
  const by = await lastHand(knex, siteId, clash)
  return clash.theirs === null ? `${name} is no longer there.` : `${name} was changed since${by ? ` by ${by}` : ''}.`
}

/**
 * Takes a change back, as far as nobody has changed the same since: a change of its own, which can be taken back too. One that changed other sites as well is
 * taken back in all of them or in none.
 */
export async function undoChange(knex: Knex, siteId: string, hand: Hand, changeId: string): Promise<Outcome> {
  const others = idField.safeParse(changeId).success ? await changedAlong(knex, siteId, changeId) : []
  const undo: MakeChange = (copy, trx) => undone(trx, copy, changeId)
  return changeSites(knex, hand, [...others.map((other) => ({ siteId: other, make: undo })), { siteId, make: undo }])
}

/** The other sites that a change changed as well. */
async function changedAlong(knex: Knex, siteId: string, changeId: string): Promise<readonly string[]> {
  const row = await knex('changes').where({ site_id: siteId, id: changeId }).first('along')
  return row?.along ?? []
}

async function undone(trx: Knex, copy: Copy, changeId: string): Promise<Awaited<ReturnType<MakeChange>>> {
  const siteId = copy.plan.site.id
  const isNamed = idField.safeParse(changeId).success
  const row = isNamed && (await trx('changes').where({ site_id: siteId, id: changeId }).first(LOG_COLUMNS))
  if (!row) return refused('change', 'this site has no such change')
  const line = logLineOf(row)
  const over = whyKept(line, { place: copy.place, at: new Date().toISOString() })
  if (over) return refused('change', `it cannot be undone: ${over}`)
  const tried = await tryUndo(trx, siteId, copy, line)
  if ('kept' in tried) return refused('change', `it cannot be undone: ${tried.kept}`)
  return { what: { name: 'undo', about: [changeWords(line.what)] }, undoes: line.id, edits: tried.edits }
}

/** The last change of each site, by its id. */
export async function lastChanges(knex: Knex): Promise<ReadonlyMap<string, LogLine>> {
  const rows = await knex('changes')
    .join('sites', (on) => on.on('sites.id', 'changes.site_id').andOn('sites.place', 'changes.place'))
    .select('changes.site_id', ...LOG_COLUMNS.map((column) => `changes.${column}`))
  return new Map(rows.map((row) => [row.site_id, logLineOf(row)]))
}

/** The changes behind a place, oldest first, without what they did. */
export async function linesSince(knex: Knex, siteId: string, since: LogPosition): Promise<LogLine[]> {
  const rows = await knex('changes')
    .where({ site_id: siteId })
    .where('place', '>', since)
    .orderBy('place')
    .select(LOG_COLUMNS)
  return rows.map(logLineOf)
}
