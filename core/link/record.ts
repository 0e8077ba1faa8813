import { type Came, isGood } from '../observe/came'
import { learntOfCable } from '../observe/learned'
import { type LinkSeries, seenOfMode, type TriedLead } from '../observe/links'
import type { SiteIndex } from '../plan/site-index'
import { LINK_MODES, type LinkMode } from '../standards/link-modes'
import type { Cable } from '../vocabulary/cable'
import { knownOf, triedLead } from './lay'

export type KindRecord = { passed: number; tried: number }

/** Records that were asked for, kept as long as neither the cables nor what was learnt of them has changed. */
const asked = new WeakMap<
  SiteIndex['learned'],
  { cables: SiteIndex['cablesOfKind']; records: Map<string, KindRecord> }
>()

/** What cables of one kind did in one mode on one controller, each counted once by what its trials come to there. */
export function recordOfKindOn(
  index: SiteIndex,
  kind: string,
  mode: LinkMode,
  controller: string | undefined,
): KindRecord {
  let kept = asked.get(index.learned)
  if (kept?.cables !== index.cablesOfKind) {
    kept = { cables: index.cablesOfKind, records: new Map() }
    asked.set(index.learned, kept)
  }
  const key = `${kind} ${mode} ${controller ?? ''}`
  const found = kept.records.get(key)
  if (found) return found
  const record = { passed: 0, tried: 0 }
  for (const cable of index.cablesOfKind.get(kind) ?? []) {
    const outcome = cameOf(index, cable, mode, controller)
    if (outcome === undefined) continue
    record.tried += 1
    record.passed += Number(isGood(outcome))
  }
  kept.records.set(key, record)
  return record
}

/** What a cable's trials of a mode come to on any socket of one controller. */
export function cameOf(
  index: SiteIndex,
  cable: Cable,
  mode: LinkMode,
  controller: string | undefined,
): Came | undefined {
  const there = knownOf(index, cable).links.filter(
    ({ spot }) => spot.controller === undefined || spot.controller === controller,
  )
  return there.length === 0 ? undefined : cameIn(there, mode, triedLead(index, cable))
}

/** What tries of a mode come to together, wherever they were made; undefined where they say nothing of it. */
export const cameIn = (links: readonly LinkSeries[], mode: LinkMode, lead: TriedLead): Came | undefined =>
  seenOfMode(
    links.map((series) => ({ ...series, spot: {} })),
    mode,
    lead,
    ANYWHERE,
  ).here?.came
const ANYWHERE = { port: '', setup: '', neighbours: false }

/** Fewer trials than this are anecdotes: they are not told. */
export const FEWEST_TRIALS = 3

/** Whether a change alters what one cable adds to the record of its kind on a controller, where that record is told. */
export function tellsOfKind(
  before: SiteIndex,
  after: SiteIndex,
  id: string,
  kind: string,
  controller: string | undefined,
): boolean {
  return LINK_MODES.some((mode) => {
    const [was, is] = [before, after].map((index) => {
      const cable = index.cables.get(id)
      return cable?.kind === kind ? cameOf(index, cable, mode, controller) : undefined
    })
    if (was === is) return false
    return [before, after].some((index) => recordOfKindOn(index, kind, mode, controller).tried >= FEWEST_TRIALS)
  })
}

/** How many cables of a kind got hot; on a supply that came from elsewhere it says nothing of the kind. */
export const ranHotOfKind = (index: SiteIndex, kind: string): number =>
  (index.cablesOfKind.get(kind) ?? []).filter(
    ({ id }) => learntOfCable(index.learned, id)?.hot?.strangeSupply === false,
  ).length
