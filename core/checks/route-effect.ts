import type { Edit } from '../change/change'
import { byId } from '../plan/lookup'
import type { Metres } from '../quantity/length'
import type { Run } from '../vocabulary/run'
import type { Assessed } from './assess'
import type { Verdict } from './finding'
import { judged } from './look-ahead'

/** A run that becomes longer or shorter, with its verdict before and after. */
export type RouteEffect = { run: Run; before: Metres; after: Metres; was: Verdict; is: Verdict }

/** What a change of pathways, places or devices would do to the runs that follow them; the longest way more first. */
export function routeEffects(site: Assessed, edits: readonly Edit[]): RouteEffect[] {
  const after = judged(site, edits)
  const was = byId(site.assessment.runs)
  const is = byId(after.assessment.runs)
  return after.index.plan.runs
    .flatMap((run): RouteEffect[] => {
      const old = site.index.runs.get(run.id)
      const [before, now] = [was.get(run.id), is.get(run.id)]
      if (!old || !before || !now || old.route.length === run.route.length) return []
      return [{ run, before: old.route.length, after: run.route.length, was: before.grade, is: now.grade }]
    })
    .sort((one, other) => other.after - other.before - (one.after - one.before))
}
