import type { Assessed } from '../checks/assess'
import { byId } from '../plan/lookup'
import { acceptedNow, keptProofOf } from '../prove/proof'
import type { Run } from '../vocabulary/run'

/** Runs that somebody accepted, as far as that still stands, and that no handover has told of yet. */
export function runsToHandOver(site: Assessed): Run[] {
  const { handovers, runs } = site.index.plan
  const last =
    handovers
      .map(({ at }) => at)
      .sort()
      .at(-1) ?? ''
  const verdicts = byId(site.assessment.runs)
  return runs.filter((run) => {
    const verdict = verdicts.get(run.id)
    if (!verdict || (acceptedNow(site.index, run)?.at ?? '') <= last) return false
    return keptProofOf(site, verdict)?.state === 'accepted'
  })
}
