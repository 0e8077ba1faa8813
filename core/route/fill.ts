import { leadCable, type SiteIndex } from '../plan/site-index'
import type { Pathway } from '../vocabulary/floor'
import { pathwaysOf, type Run } from '../vocabulary/run'
import { type Bundle, bundleInConduit, bundleInSection, bundleOf, type Fill, together } from './conduit'

/** What lies in a pathway: its runs, how full it is where its section is known, and leads of which nobody has said how thick they are. */
export type PathwayFill = { runs: readonly Run[]; fill: Fill | null; unmeasured: number }

/** What lies in a pathway of the runs that follow it, and how thick each of them is. */
type Laid = { all: Bundle; byRun: ReadonlyMap<string, number> }

const laidByIndex = new WeakMap<SiteIndex, Map<string, Laid>>()

/** The runs of a pathway added up, once for each plan: every one of them asks for the others. */
function laidIn(index: SiteIndex, pathway: string): Laid {
  let known = laidByIndex.get(index)
  if (!known) {
    known = new Map()
    laidByIndex.set(index, known)
  }
  const found = known.get(pathway)
  if (found) return found
  const byRun = new Map<string, number>()
  for (const run of index.runsAlong.get(pathway) ?? []) {
    const thick = thickest(index, run)
    if (thick !== undefined) byRun.set(run.id, thick)
  }
  const made = { all: bundleOf([...byRun.values()]), byRun }
  known.set(pathway, made)
  return made
}

/** How full a pathway is of what is really in it: the leads of the runs that follow it, and what lay there before. */
export function pathwayFill(index: SiteIndex, { id, inner, free, beside }: Pathway): PathwayFill {
  const runs = index.runsAlong.get(id) ?? []
  const leads = runs.flatMap((run) => run.leads.map((lead) => leadCable(index, lead).thickness))
  const unmeasured = leads.filter((each) => each === undefined).length
  const all = together(laidIn(index, id).all, bundleOf(beside))
  const fill =
    inner === undefined ? (free === undefined ? null : bundleInSection(free, all)) : bundleInConduit(inner, all)
  return { runs, fill, unmeasured }
}

/** What a verdict on a run follows from in the pathways it takes, whatever lead lies in it. */
export const conditionsAlong = (index: SiteIndex, run: Run): unknown[] =>
  [...pathwaysOf(run)].map((id) => {
    const { through, inner, free, beside } = index.pathways.get(id) ?? {}
    return [through, inner, free, beside, inner === undefined && free === undefined ? null : othersIn(index, id, run)]
  })

/** What other runs have in a pathway, as far as it is known. */
export function othersIn(index: SiteIndex, pathway: string, own: Run): Bundle {
  const { all, byRun } = laidIn(index, pathway)
  const thick = byRun.get(own.id)
  return thick === undefined ? all : { cables: all.cables - 1, squares: Math.max(0, all.squares - thick ** 2) }
}

/** How thick a run is: its leads lie one behind the other and not beside each other, so the thickest counts. Undefined where none is known. */
const thickest = (index: SiteIndex, run: Run): number | undefined => {
  const known = run.leads.flatMap((lead) => leadCable(index, lead).thickness ?? [])
  return known.length === 0 ? undefined : Math.max(...known)
}
