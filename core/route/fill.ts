import { leadCable, type SiteIndex } from '../plan/site-index'
import type { Pathway } from '../vocabulary/floor'
import { pathwaysOf, type Run } from '../vocabulary/run'
import { conduitFill, type Fill, sectionFill } from './conduit'

/** What lies in a pathway: its runs, how full it is where its section is known, and leads of which nobody has said how thick they are. */
export type PathwayFill = { runs: readonly Run[]; fill: Fill | null; unmeasured: number }

/** How full a pathway is of what is really in it: the leads of the runs that follow it, and what lay there before. */
export function pathwayFill(index: SiteIndex, { id, inner, free, beside }: Pathway): PathwayFill {
  const runs = index.runsAlong.get(id) ?? []
  const thick = runs.flatMap((run) => thickest(index, run) ?? [])
  const leads = runs.flatMap((run) => run.leads.map((lead) => leadCable(index, lead).thickness))
  const unmeasured = leads.filter((each) => each === undefined).length
  const all = [...thick, ...beside]
  const fill = inner === undefined ? (free === undefined ? null : sectionFill(free, all)) : conduitFill(inner, all)
  return { runs, fill, unmeasured }
}

/** What a verdict on a run follows from in the pathways it takes, whatever lead lies in it. */
export const conditionsAlong = (index: SiteIndex, run: Run): unknown[] =>
  [...pathwaysOf(run)].map((id) => {
    const { through, inner, free, beside } = index.pathways.get(id) ?? {}
    return [through, inner, free, beside, othersIn(index, id, run)]
  })

/** The diameters of what other runs have in a pathway, as far as they are known. */
export const othersIn = (index: SiteIndex, pathway: string, own: Run): number[] =>
  (index.runsAlong.get(pathway) ?? []).flatMap((run) => (run.id === own.id ? [] : (thickest(index, run) ?? [])))

/** How thick a run is: its leads lie one behind the other and not beside each other, so the thickest counts. Undefined where none is known. */
const thickest = (index: SiteIndex, run: Run): number | undefined => {
  const known = run.leads.flatMap((lead) => leadCable(index, lead).thickness ?? [])
  return known.length === 0 ? undefined : Math.max(...known)
}
