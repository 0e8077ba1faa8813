import { recordOfKindOn } from '../link/record'
import { learntOfCable, runRecords } from '../observe/learned'
import type { Learnt } from '../observe/learnt'
import { type LinkSeries, type ModeTally, talliesOf } from '../observe/links'
import type { SiteIndex } from '../plan/site-index'
import { exactShare } from '../quantity/intervals'
import type { SuccessRate } from '../quantity/statistics'
import type { LinkMode } from '../standards/link-modes'
import type { Cable } from '../vocabulary/cable'
import type { Instant } from '../vocabulary/fields'
import { laidCables, type Run } from '../vocabulary/run'

/** How often one mode was tried on one controller, and how often it held. */
export type ModeRecord = { mode: LinkMode; controller: string | null; rate: SuccessRate; last: Instant }

/** What was tried of one cable, by mode and controller, the latest first. */
export const recordOf = (learnt: Learnt | undefined): ModeRecord[] => recordsFrom(talliesOf(learnt?.links ?? []))

/** What all cables of one kind did, each counted once a mode by what its trials come to. Null where a cable is of no kind. */
export function recordOfKind(index: SiteIndex, { kind }: Cable): ModeRecord[] | null {
  if (kind === undefined) return null
  const tried = new Map<string, ModeTally>()
  for (const { id } of index.cablesOfKind.get(kind) ?? []) {
    for (const tally of talliesOf(learntOfCable(index.learned, id)?.links ?? [])) {
      const key = `${tally.mode} ${tally.controller ?? ''}`
      const known = tried.get(key)
      if (!known || tally.last > known.last) tried.set(key, tally)
    }
  }
  return recordsFrom(
    [...tried.values()].map((tally) => ({
      ...tally,
      ...recordOfKindOn(index, kind, tally.mode, tally.controller ?? undefined),
    })),
  )
}

const recordsFrom = (tallies: readonly ModeTally[]): ModeRecord[] =>
  tallies
    .flatMap(({ mode, controller, passed, tried, last }) => {
      const rate = exactShare(passed, tried)
      return rate ? [{ mode, controller, rate, last }] : []
    })
    .sort((one, other) => (one.last < other.last ? 1 : one.last > other.last ? -1 : 0))

/** Runs a cable lies in or was proved in, with the proofs that name it, the latest first. */
export function runsOfCable(
  index: SiteIndex,
  cable: Cable,
): { run: Run; liesHere: boolean; proofs: readonly LinkSeries[] }[] {
  return index.plan.runs.flatMap((run) => {
    const liesHere = laidCables(run).includes(cable.id)
    const proofs = runRecords(index.learned, run.id)
      .filter(({ leads }) => leads.includes(cable.id))
      .flatMap(({ learnt }) => learnt.links)
      .sort((one, other) => (one.at < other.at ? 1 : -1))
    return liesHere || proofs.length > 0 ? [{ run, liesHere, proofs }] : []
  })
}
