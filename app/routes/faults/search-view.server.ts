import { data } from 'react-router'
import { type Assessed, assessRun, walkNeeds } from '../../../core/checks/assess'
import { situationOf } from '../../../core/checks/situation'
import { type Ladder, ladderOf } from '../../../core/faults/nothing-wrong'
import { type Scene, sceneOf } from '../../../core/faults/scene'
import { countingOf } from '../../../core/faults/seen-in'
import type { Reading } from '../../../core/observe/observation'
import type { Plan } from '../../../core/plan/plan'
import { indexPlan } from '../../../core/plan/site-index'
import type { Run } from '../../../core/vocabulary/run'
import type { Search } from '../../../core/vocabulary/search'
import { loadSite } from '../../stored.server'
import { openView } from '../../views.server'

type Site = Pick<Assessed, 'index' | 'walks'>

/** A run of a site with all that its search is judged by; no other run is judged for it. */
export function sceneAt({ index, walks }: Site, run: Run): Scene {
  const crossings = walks.crossings.get(run.id) ?? []
  const blocked = assessRun(index, run, crossings).findings.filter(({ grade }) => grade === 'blocked')
  return sceneOf({ index, crossings, blocked }, run)
}

/** A plan as a form is read against: resolved, with the path of every need. */
export function siteOf(plan: Plan): Site {
  const index = indexPlan(plan)
  return { index, walks: walkNeeds(index) }
}

export async function assessedSite(siteId: string): Promise<Assessed> {
  const { copy, identity } = await loadSite(siteId)
  return (await openView(siteId, copy, identity)).assessed
}

/** A search with its run; the page of one that is not there says so. */
export function searchIn(plan: Plan, id: string | undefined): { search: Search; run: Run } {
  const search = plan.searches.find((each) => each.id === id)
  const run = plan.runs.find((each) => each.id === search?.run)
  if (!search || !run) throw data(GONE, { status: 404 })
  return { search, run }
}

const GONE =
  'This search is not there any more: its run was removed, or it was undone. The history has both, and undo brings them back.'

const MEASURES: ReadonlySet<string> = new Set(['write', 'read', 'watts'] satisfies Reading['measure'][])

/** The last reading of each measure of a run, held against what is to be expected. */
export function laddersOf({ index, walks }: Site, run: Run, since: string): { measure: string; ladder: Ladder }[] {
  const situation = situationOf(index, run, walks.crossings.get(run.id) ?? [])
  const latest = new Map<string, Reading>()
  for (const each of countingOf(index.plan, run.id))
    if (each.kind === 'reading' && MEASURES.has(each.measure) && each.at >= since) latest.set(each.measure, each)
  return [...latest].flatMap(([measure, reading]) => {
    const ladder = ladderOf(situation, reading)
    return ladder ? [{ measure, ladder }] : []
  })
}
