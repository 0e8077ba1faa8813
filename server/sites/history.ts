import type { Knex } from 'knex'
import { LRUCache } from 'lru-cache'
import { applyChange } from '../../core/change/apply'
import { type Copy, type Edit, entityKey, type LogPosition } from '../../core/change/change'
import { entityAt } from '../../core/change/copy'
import { rebase } from '../../core/change/merge'
import { changeWords } from '../../core/change/words'
import { entityOf } from '../../core/observe/every'
import type { Observation } from '../../core/observe/observation'
import type { Entity, ListName } from '../../core/plan/entity'
import { idField } from '../../core/vocabulary/fields'
import { changeSite, type Hand, type Outcome, refused } from './change-site'
import { entityWas, inverseAt, LOG_COLUMNS, type LogLine, lastHand, logLineOf, upgraded } from './entity-rows'

export type HistoryLine = LogLine & {
  /** What it touched, the first of it; `count` is all of it. */
  touched: { list: ListName; id: string; name: string | null }[]
  count: number
  /** Why it cannot be undone; null where it can. */
  kept: string | null
}

export type HistoryPage = { lines: HistoryLine[]; older: LogPosition | null; newer: boolean }

const LINES = 30
const TOUCHED_SHOWN = 6
const MOST_LOOKED_AT = 40
/** Of a change that touched more than this it is not worked out beforehand whether it can be undone. */
const MOST_TRIED = 400

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
  const lines: HistoryLine[] = []
  for (const line of shown) lines.push(await withTouched(knex, siteId, copy, line))
  return {
    lines,
    older: rows.length > LINES ? (shown.at(-1)?.place ?? null) : null,
    newer: before !== undefined,
  }
}

async function withTouched(knex: Knex, siteId: string, copy: Copy, line: LogLine): Promise<HistoryLine> {
  const { made, things } = await countsOf(knex, siteId, line)
  const rows = await knex('edits')
    .where({ site_id: siteId, place: line.place })
    .orderBy('seq')
    .limit(MOST_LOOKED_AT)
    .select('list', 'id', 'version', 'value', 'was')
  const touched = new Map(
    rows.map((row) => {
      const { list, id } = row
      const one = touchedOf(copy, list, id, upgraded(row, row.value ?? row.was) as Entity)
      return [entityKey(one.list, one.id), one]
    }),
  )
  return {
    ...line,
    touched: [...touched.values()].slice(0, TOUCHED_SHOWN),
    count: things,
    kept: await whyKept(knex, siteId, copy, line, made),
  }
}

/** How many edits a change made, and how many things they touched. What is written in the log stays as it is, so it is counted once. */
const counts = new LRUCache<string, { made: number; things: number }>({ max: 10_000 })

async function countsOf(knex: Knex, siteId: string, { id, place }: LogLine) {
  const known = counts.get(id)
  if (known) return known
  // several observations of one cable touch one thing
  const row = await knex('edits')
    .where({ site_id: siteId, place })
    .first(knex.raw("COUNT(*) AS made, COUNT(DISTINCT COALESCE(subject, CONCAT(list, '/', id))) AS things"))
  const found = { made: Number(row.made), things: Number(row.things) }
  counts.set(id, found)
  return found
}

/** What an edit touched; of an observation, what it is about. */
function touchedOf(copy: Copy, list: ListName, id: string, entity: Entity): HistoryLine['touched'][number] {
  if (list !== 'observations') return { list, id, name: nameOf(entity as Named) }
  const about = entityOf((entity as Observation).subject)
  return { ...about, name: nameOf(entityAt(copy.plan, about.list, about.id) as Named | null) }
}

type Named = { tag?: string; name?: string | undefined }
const nameOf = (entity: Named | null): string | null => entity?.tag ?? entity?.name ?? null

async function whyKept(knex: Knex, siteId: string, copy: Copy, line: LogLine, count: number): Promise<string | null> {
  if (line.place === 1) return 'It is how the site began. Put the site away instead.'
  if (count > MOST_TRIED) return null
  return tryUndo(knex, siteId, copy, line).then((tried) => ('kept' in tried ? tried.kept : null))
}

/** What would take a change back on the site as it stands, or why that cannot be. */
async function tryUndo(
  knex: Knex,
  siteId: string,
  copy: Copy,
  line: LogLine,
): Promise<{ edits: Edit[] } | { kept: string }> {
  const inverse = await inverseAt(knex, siteId, line.place)
  const was = new Map<string, Entity | null>()
  for (const edit of inverse) {
    const found = edit.base === null ? null : await entityWas(knex, siteId, edit, line.place)
    if (found) was.set(entityKey(edit.list, edit.id), found.was)
  }
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

/** Takes a change back, as far as nobody has changed the same since: a change of its own, which can be taken back too. */
export const undoChange = (knex: Knex, siteId: string, hand: Hand, changeId: string): Promise<Outcome> =>
  changeSite(knex, siteId, hand, async (copy, trx) => {
    const isNamed = idField.safeParse(changeId).success
    const row = isNamed && (await trx('changes').where({ site_id: siteId, id: changeId }).first(LOG_COLUMNS))
    if (!row) return refused('change', 'this site has no such change')
    const line = logLineOf(row)
    if (line.place === 1) return refused('change', 'it is how the site began')
    const tried = await tryUndo(trx, siteId, copy, line)
    if ('kept' in tried) return refused('change', `it cannot be undone: ${tried.kept}`)
    return {
      what: { name: 'undo', about: [changeWords(line.what)] },
      undoes: line.id,
      edits: tried.edits,
    }
  })

/** The changes behind a place, oldest first, without what they did. */
export async function linesSince(knex: Knex, siteId: string, since: LogPosition): Promise<LogLine[]> {
  const rows = await knex('changes')
    .where({ site_id: siteId })
    .where('place', '>', since)
    .orderBy('place')
    .select(LOG_COLUMNS)
  return rows.map(logLineOf)
}
