import { type CableOutcome, estimateOn, outcomesOfKind } from '../link/outcomes'
import { isWatts, leastOf, mostOf } from '../observe/figures'
import { learntOf, learntOfCable } from '../observe/learned'
import type { SiteIndex } from '../plan/site-index'
import { exactShare } from '../quantity/intervals'
import type { Metres } from '../quantity/length'
import type { SuccessRate } from '../quantity/statistics'
import { type LinkMode, linkModeFacts } from '../standards/link-modes'
import { keptWith } from '../work/kept'

/** What cables of one kind and length did in one mode on one controller: each counted once in each socket. */
export type RecordCell = {
  /** The name of the kind, as its catalogue has it. */
  kind: string
  /** Null where it was told of the kind as a whole. */
  length: Metres | null
  mode: LinkMode
  /** The controller that it was tried on; null where nobody noted it. */
  controller: string | null
  held: number
  tried: number
  /** Of those that held, in a run that lay for days: a grade of its own, above the bench. */
  inPlace: number
  /** Seconds that were watched, and drops in them. */
  seconds: number
  drops: number
}

/** What a site knows of its cables, by kind, length, mode and controller, each counted once in each socket. Cables of no kind are left out: nobody can buy them again. */
export const recordOf = keptWith((index: SiteIndex): readonly RecordCell[] =>
  index.plan.kinds.flatMap((kind) =>
    cellsOf(outcomesOfKind(index, kind)).map((cell) => ({ ...cell, kind: kind.name })),
  ),
)

/** What came of the cables of one kind, by length, mode and controller. */
const cellsOf = keptWith((outcomes: readonly CableOutcome[]): readonly Omit<RecordCell, 'kind'>[] => {
  const cells = new Map<string, Omit<RecordCell, 'kind'>>()
  for (const { levels, length, mode, controller, held, seconds, drops, inPlace } of outcomes) {
    // of one kind: by length, and by controller where it was noted
    const key = levels[controller === null ? 2 : 3] ?? ''
    let cell = cells.get(key)
    if (!cell) {
      cell = { ...NO_CELL, length, mode, controller }
      cells.set(key, cell)
    }
    cell.tried += 1
    cell.held += held
    cell.inPlace += Number(inPlace)
    cell.seconds += seconds
    cell.drops += drops
  }
  return [...cells.values()]
})
const NO_CELL = { held: 0, tried: 0, inPlace: 0, seconds: 0, drops: 0 }

/** What others counted of kinds of this site, as they told it: by the kind as a whole, each source's latest word. */
export const toldOf = keptWith((index: SiteIndex): readonly RecordCell[] =>
  index.plan.kinds.flatMap(({ id, name }) =>
    (learntOf(index.learned, { kind: id })?.counted ?? []).map(
      ({ mode, held, tried }): RecordCell => ({
        kind: name,
        length: null,
        mode,
        controller: null,
        held,
        tried,
        inPlace: 0,
        seconds: 0,
        drops: 0,
      }),
    ),
  ),
)

/** How finely a record is told: a kind as a whole, by its lengths, or by length and controller. */
export const RECORD_GRAINS = ['kind', 'length', 'controller'] as const
export type RecordGrain = (typeof RECORD_GRAINS)[number]

export type RecordRow = RecordCell & { rate: SuccessRate; elsewhere: number }

/** How much a try of somebody else counts beside an own one. */
export const WEIGHTS = [1, 0.5, 0] as const
export type Weight = (typeof WEIGHTS)[number]

/** A record counts as one's own, or as that of other sites. */
type Told = { own: readonly RecordCell[]; others: readonly RecordCell[] }

/** So few tries are pooled upward: alone they say nothing. */
export const FEWEST_TOLD = 3

/**
 * The record at a grain, the most often tried first. What is tried fewer than three times at that grain is told at the next coarser one, together with all that
 * lies under it. `elsewhere` says how many of the tries are those of other sites.
 */
export function recordRows({ own, others }: Told, grain: RecordGrain, weight: Weight = 1): RecordRow[] {
  const cells = [
    ...own.map((cell) => ({ cell, other: false })),
    ...(weight === 0 ? [] : others.map((cell) => ({ cell, other: true }))),
  ]
  const keyAt = ({ kind, length, mode, controller }: RecordCell, at: RecordGrain): string =>
    [kind.toLowerCase(), mode, at === 'kind' ? '' : length, at === 'controller' ? controller : ''].join('|')
  const countAt = new Map<string, number>()
  for (const { cell } of cells)
    for (const at of cell.length === null ? (['kind'] as const) : RECORD_GRAINS) {
      const key = `${at} ${keyAt(cell, at)}`
      countAt.set(key, (countAt.get(key) ?? 0) + cell.tried)
    }
  const grains = RECORD_GRAINS.slice(0, RECORD_GRAINS.indexOf(grain) + 1).toReversed()
  const rows = new Map<string, Omit<RecordRow, 'rate'>>()
  for (const { cell, other } of cells) {
    const at =
      cell.length === null
        ? 'kind'
        : (grains.find((each) => (countAt.get(`${each} ${keyAt(cell, each)}`) ?? 0) >= FEWEST_TOLD) ?? 'kind')
    const key = `${at} ${keyAt(cell, at)}`
    const row = rows.get(key) ?? {
      ...cell,
      length: at === 'kind' ? null : cell.length,
      controller: at === 'controller' ? cell.controller : null,
      held: 0,
      tried: 0,
      inPlace: 0,
      seconds: 0,
      drops: 0,
      elsewhere: 0,
    }
    const counts = other ? weight : 1
    row.held += counts * cell.held
    row.tried += counts * cell.tried
    row.inPlace += cell.inPlace
    row.seconds += cell.seconds
    row.drops += cell.drops
    row.elsewhere += other ? cell.tried : 0
    rows.set(key, row)
  }
  return [...rows.values()]
    .flatMap((row): RecordRow[] => {
      const rate = exactShare(row.held, row.tried)
      return rate ? [{ ...row, rate }] : []
    })
    .sort(
      (one, other) =>
        other.tried - one.tried ||
        linkModeFacts[other.mode].line - linkModeFacts[one.mode].line ||
        (one.kind < other.kind ? -1 : 1),
    )
}

/** A row of the record, with how likely the next one is to hold; null where this site does not know the kind. */
export type ToldRow = RecordRow & { likely: number | null }

/**
 * The record of a site beside what `others` tell, at a grain. How likely the next one holds is the same figure that ranks and prices: few tries lean on what is known
 * one level up.
 */
export function recordTold(
  index: SiteIndex,
  others: readonly RecordCell[],
  grain: RecordGrain,
  weight: Weight,
): ToldRow[] {
  const builds = new Map(index.plan.kinds.map(({ name, construction }) => [name.toLowerCase(), construction]))
  return recordRows({ own: recordOf(index), others: [...others, ...toldOf(index)] }, grain, weight).map((row) => {
    const { mode, length, controller } = row
    const kind = row.kind.toLowerCase()
    const construction = builds.get(kind)
    if (construction === undefined) return { ...row, likely: null }
    const asked = {
      mode,
      construction,
      kind,
      ...(length === null ? {} : { length }),
      ...(controller === null ? {} : { controller }),
    }
    return { ...row, likely: estimateOn(index, asked, others, weight).odds }
  })
}

/** What one cable did in one socket, the last time. */
export type PortCell = { mode: LinkMode | null; dropped: boolean; seconds: number; at: string }

/** Which cable did what in which socket of the site: sockets are `device/port`. */
export function portMatrix(index: SiteIndex): {
  ports: string[]
  rows: { cable: string; cells: Map<string, PortCell> }[]
} {
  const ports = new Map<string, number>()
  const rows = index.plan.cables.flatMap(({ id }) => {
    const cells = new Map<string, PortCell>()
    for (const { spot, cameUp, dropped, watched = 0, at, copied } of learntOfCable(index.learned, id)?.links ?? []) {
      if (copied || spot.port === undefined || spot.port.startsWith('run /')) continue
      const known = cells.get(spot.port)
      if (known && known.at > at) continue
      cells.set(spot.port, { mode: cameUp, dropped: dropped === true, seconds: watched, at })
    }
    for (const port of cells.keys()) ports.set(port, (ports.get(port) ?? 0) + 1)
    return cells.size > 0 ? [{ cable: id, cells }] : []
  })
  return { ports: [...ports].sort((one, other) => other[1] - one[1]).map(([port]) => port), rows }
}

export type WattsRow = { charger: string; cable: string; device: string; least: number; most: number; times: number }

/** The watts that arrived from each charger over each lead at each device: a ceiling may belong to all three together. */
export function wattsTable(index: SiteIndex): WattsRow[] {
  const rows = new Map<string, WattsRow>()
  const deviceOf = (port: string | undefined): string | null => port?.split('/')[0] ?? null
  for (const { id } of index.plan.cables) {
    for (const series of learntOfCable(index.learned, id)?.figures.filter(isWatts) ?? []) {
      const { times, spot } = series
      const [least, most] = [leastOf(series), mostOf(series)]
      const [charger, device] = [deviceOf(spot.port), deviceOf(spot.far)]
      if (!charger || !device) continue
      const key = `${charger} ${id} ${device}`
      const row = rows.get(key) ?? { charger, cable: id, device, least: least.watts, most: most.watts, times: 0 }
      row.least = Math.min(row.least, least.watts)
      row.most = Math.max(row.most, most.watts)
      row.times += times
      rows.set(key, row)
    }
  }
  return [...rows.values()].sort((one, other) => other.most - one.most)
}
