import { cameOf } from '../link/record'
import { IN_PLACE_SECONDS } from '../observe/basis'
import { learntOf, learntOfCable } from '../observe/learned'
import type { Learnt } from '../observe/learnt'
import type { SiteIndex } from '../plan/site-index'
import { exactShare } from '../quantity/intervals'
import type { Metres } from '../quantity/length'
import type { SuccessRate } from '../quantity/statistics'
import { type LinkMode, linkModeFacts } from '../standards/link-modes'
import { keptWith } from '../work/kept'

/** What cables of one kind and length did in one mode on one sort of socket: each counted once. */
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

/** What a site knows of its cables, by kind, length, mode and controller. Cables of no kind are left out: nobody can buy them again. */
export const recordOf = keptWith((index: SiteIndex): readonly RecordCell[] => {
  const cells = new Map<string, RecordCell>()
  for (const { id: kindId, name } of index.plan.kinds)
    for (const cable of index.cablesOfKind.get(kindId) ?? []) {
      const learnt = learntOfCable(index.learned, cable.id)
      for (const { mode, controller, seconds, drops } of learnt?.tallies ?? []) {
        const says = cameOf(index, cable, mode, controller ?? undefined)
        if (says === undefined) continue
        const key = `${name.toLowerCase()} ${cable.length} ${mode} ${controller}`
        const cell = cells.get(key) ?? {
          kind: name,
          length: cable.length,
          mode,
          controller,
          held: 0,
          tried: 0,
          inPlace: 0,
          seconds: 0,
          drops: 0,
        }
        cell.tried += 1
        cell.inPlace += Number(says === 'holds' && wasInPlace(learnt, mode, controller))
        cell.held += Number(says === 'holds' || says === 'comes up')
        cell.seconds += seconds
        cell.drops += drops
        cells.set(key, cell)
      }
    }
  return [...cells.values()]
})

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

/** It held in a run, watched for a day or longer. */
const wasInPlace = (learnt: Learnt | undefined, mode: LinkMode, controller: string | null): boolean =>
  learnt?.trials.some(
    ({ copied, cameUp, tried, seconds = 0, spot }) =>
      copied === true &&
      cameUp === mode &&
      tried === mode &&
      seconds >= IN_PLACE_SECONDS &&
      (spot.controller ?? null) === controller,
  ) ?? false

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
    for (const { spot, cameUp, basis, seconds = 0, at, copied } of learntOfCable(index.learned, id)?.trials ?? []) {
      if (copied || spot.port === undefined || spot.port.startsWith('run /')) continue
      const known = cells.get(spot.port)
      if (known && known.at > at) continue
      cells.set(spot.port, { mode: cameUp, dropped: cameUp === null && basis === 'soaked', seconds, at })
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
    const learnt: Learnt | undefined = learntOfCable(index.learned, id)
    for (const { watts, spot } of learnt?.watts ?? []) {
      const [charger, device] = [deviceOf(spot.port), deviceOf(spot.far)]
      if (!charger || !device) continue
      const key = `${charger} ${id} ${device}`
      const row = rows.get(key)
      if (row) {
        row.least = Math.min(row.least, watts)
        row.most = Math.max(row.most, watts)
        row.times += 1
      } else rows.set(key, { charger, cable: id, device, least: watts, most: watts, times: 1 })
    }
  }
  return [...rows.values()].sort((one, other) => other.most - one.most)
}
