import { type SiteIndex, type Socket, socketAt } from '../plan/site-index'
import type { Cable } from '../vocabulary/cable'
import type { Run } from '../vocabulary/run'
import type { Crossing } from './situation'
import type { Spots } from './spots'

/** A run with what crosses it, of which a verdict is asked with one lead or another. */
export type RunToJudge = { index: SiteIndex; run: Run; crossed: readonly Crossing[]; spots: Spots }

/** A site before a change and after it. */
export type Between = { before: SiteIndex; after: SiteIndex }

/** Tells which runs are judged again when a thing changed, by its id. */
type Bears = (site: Between, id: string) => Iterable<string>

/**
 * Something that verdicts follow from. Ranking takes from it which runs and which leads are judged alike, and reassessing which runs a change bears on: both
 * ask every aspect that a check reads, so neither knows the checks.
 */
export type Aspect = {
  name: string
  /** What of a run it is: runs that agree in all aspects are judged alike. Left out: nothing of a run. */
  ofRun?(asked: RunToJudge): unknown
  /** What of a lead it is: leads that agree in all aspects are judged alike. Left out: nothing of a lead. */
  ofLead?(index: SiteIndex, cable: Cable): unknown
  /** The lead is like no other. */
  isLeadUnlike?(index: SiteIndex, cable: Cable): boolean
  /** The run is like no other. */
  isRunUnlike?(index: SiteIndex, run: Run): boolean
  /** Leads that are like no other in this run. */
  leadsUnlike?(asked: RunToJudge): Iterable<string>
  /** It is compared for each run with each lead, and never taken as alike. */
  isPairwise?: true
  /** What changes it: a run in any way, a run's ends or its turn among others, what was seen of a run, a device, a place, a pathway, a kind, a cable, a need. */
  bears?: Partial<
    Record<'run' | 'joined' | 'runSeen' | 'device' | 'place' | 'pathway' | 'kind' | 'cable' | 'need', Bears>
  >
}

export const endsOf = (index: SiteIndex, { from, to }: Run): Socket[] =>
  [from, to].map((address) => socketAt(index, address))
export const idsOf = (runs: Iterable<Run> | undefined): string[] => Array.from(runs ?? [], ({ id }) => id)

/** The runs that a question about either state of a site comes to. */
export const either = (ask: (index: SiteIndex, id: string) => Iterable<Run>): Bears =>
  function* ({ before, after }, id) {
    yield* idsOf(ask(before, id))
    yield* idsOf(ask(after, id))
  }

export const runsAt = (index: SiteIndex, device: string): readonly Run[] => index.runsAt.get(device) ?? []

/** The runs at both devices of a run. */
export const neighbours = (index: SiteIndex, id: string): Run[] => {
  const run = index.runs.get(id)
  return run ? [run.from, run.to].flatMap(({ device }) => runsAt(index, device)) : []
}

export const laidIn = (index: SiteIndex, cable: string): Run[] => {
  const run = index.runOf.get(cable)
  return run ? [run] : []
}

/** The runs with a cable of a kind in them, or one of it yet to be bought. */
export const withKind = (index: SiteIndex, kind: string): Run[] => [
  ...(index.cablesOfKind.get(kind) ?? []).flatMap(({ id }) => laidIn(index, id)),
  ...(index.runsOfKind.get(kind) ?? []),
]
