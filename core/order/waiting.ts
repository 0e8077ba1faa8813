import type { Assessed } from '../checks/assess'
import { offersOf } from '../match/offers'
import type { Metres } from '../quantity/length'
import type { CableKind } from '../vocabulary/cable'
import type { Run } from '../vocabulary/run'

/** Runs that are accepted as they lie until a lead is sold that does more. */
export const waitingRuns = ({ plan }: Pick<Assessed['index'], 'plan'>): Run[] => plan.runs.filter(({ waits }) => waits)

/** A run that waited, and what the catalogue has by now that makes it clear; null: nothing yet. */
export type Waited = { run: Run; now: { kind: CableKind; length: Metres } | null }

/** What has come for the runs that wait: judged by the one evaluator of Match, whenever the catalogue is looked at. */
export function waited({ index, walks }: Assessed): Waited[] {
  return waitingRuns(index).map((run) => {
    const offer = offersOf(index, run, walks.crossings.get(run.id) ?? []).find(
      ({ verdict }) => verdict.grade === 'clear',
    )
    return { run, now: offer ? { kind: offer.kind, length: offer.length } : null }
  })
}
