import { directNeeds, joinsSame } from '../../plan/direct-needs'
import type { Plan } from '../../plan/plan'
import type { Need } from '../../vocabulary/need'
import type { Run } from '../../vocabulary/run'
import { isRunSoak } from '../../vocabulary/session'
import type { ChangeToMake, Edit, LogPosition, What } from '../change'
import { changedWhat, leadTag } from '../differences'
import { same } from '../merge'

/** A run with the needs that flow directly between its two devices: what one form edits and one change writes. */
export type RunWithNeeds = { run: Run; needs: readonly Need[] }

/**
 * Saves a run with the needs that flow directly over it, as a form made them from the site at place `base`: `had` are the needs it was shown. A run the
 * site does not have is new; what equals the site as it stands is no part of the change.
 */
export function saveRun(
  plan: Plan,
  base: LogPosition | null,
  { run, needs, had }: RunWithNeeds & { had: readonly string[] },
): ChangeToMake {
  const standing = new Map(plan.needs.map((need) => [need.id, need]))
  const kept = new Set(needs.map(({ id }) => id))
  const edits: Edit[] = []
  const known = plan.runs.find(({ id }) => id === run.id)
  if (!known || !same(known, run)) edits.push({ list: 'runs', id: run.id, base, value: run })
  for (const need of needs) {
    const was = standing.get(need.id)
    if (!was || !same(was, need))
      edits.push({ list: 'needs', id: need.id, base: had.includes(need.id) ? base : null, value: need })
  }
  for (const id of had) if (!kept.has(id) && standing.has(id)) edits.push({ list: 'needs', id, base, value: null })
  return { what: (before, made) => whatOf(before, made, run), edits }
}

function whatOf(plan: Plan, edits: readonly Edit[], { id, tag }: Run): What {
  const before = plan.runs.find((run) => run.id === id)
  const run = edits.find(({ list }) => list === 'runs')?.value as Run | undefined
  const tags = (run?.leads ?? []).map((lead) => leadTag(plan, lead))
  if (!before) return { name: 'lay run', about: [tag, ...tags] }
  const needs = edits.some(({ list }) => list === 'needs') ? ['the needs'] : []
  if (run && needs.length === 0 && same({ ...before, leads: run.leads }, run))
    return { name: 'put leads', about: [tag, ...tags] }
  return changedWhat('change run', 'runs', id, needs)(plan, edits)
}

/** Deletes a run with what was observed of it and the needs that have no other way between its devices; other needs no longer take it. */
export function deleteRun(plan: Plan, base: LogPosition, run: Run): ChangeToMake {
  const twin = plan.runs.some((other) => other.id !== run.id && joinsSame(other, run))
  const gone = new Set(twin ? [] : directNeeds(plan, run).map(({ id }) => id))
  const edits: Edit[] = [{ list: 'runs', id: run.id, base, value: null }]
  for (const need of plan.needs) {
    if (gone.has(need.id)) edits.push({ list: 'needs', id: need.id, base, value: null })
    else if (need.through?.includes(run.id)) {
      const through = need.through.filter((id) => id !== run.id)
      const { through: _, ...rest } = need
      edits.push({ list: 'needs', id: need.id, base, value: through.length > 0 ? { ...rest, through } : rest })
    }
  }
  for (const soak of plan.soaks)
    if (isRunSoak(soak) && soak.run === run.id) edits.push({ list: 'soaks', id: soak.id, base, value: null })
  for (const search of plan.searches)
    if (search.run === run.id) edits.push({ list: 'searches', id: search.id, base, value: null })
  for (const { id, subject } of plan.observations)
    if ('run' in subject && subject.run === run.id) edits.push({ list: 'observations', id, base, value: null })
  return { what: { name: 'delete run', about: [run.tag] }, edits }
}
