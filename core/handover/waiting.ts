import type { SiteIndex } from '../plan/site-index'
import { acceptedNow } from '../prove/proof'
import type { Run } from '../vocabulary/run'

/** Runs that somebody accepted and that no handover has told of yet. */
export function runsToHandOver(index: SiteIndex): Run[] {
  const { handovers, runs } = index.plan
  const last =
    handovers
      .map(({ at }) => at)
      .sort()
      .at(-1) ?? ''
  return runs.filter((run) => (acceptedNow(index, run)?.at ?? '') > last)
}
