import type { Edit, LogPosition } from '../change/change'
import { type Assessed, leadingFinding } from '../checks/assess'
import type { Finding } from '../checks/checks'
import { severity, type Verdict } from '../checks/finding'
import { judged } from '../checks/look-ahead'
import { isWorse, type Turned, turnedBetween } from '../checks/turned'
import { byId } from '../plan/lookup'
import type { Run } from '../vocabulary/run'
import type { InSlices } from '../work/in-slices'
import { freeCables } from './rank-all'

/** One run with the lead proposed for it. */
export type ProposedLead = { run: string; tag: string; cable: string; before: Verdict; after: Verdict }
/** A run for which the drawer has nothing better, and why it stays as it is. */
export type LeftRun = { run: string; tag: string; grade: Verdict; leading: Finding | null }
export type LeadProposal = {
  leads: readonly ProposedLead[]
  left: readonly LeftRun[]
  worse: readonly Turned[]
  edits: readonly Edit[]
}

/** So far down the drawer a lead is looked for that no run before has taken. */
const MOST_LOOKED_AT = 40

/**
 * The best from the drawer for many runs at once: each that is not clear, in the order given, gets the best free lead that betters it, and a lead goes to
 * one run only. The whole is judged on the site as its edits would make it; a lead that does not better its run there is left out.
 */
export function* proposeLeads(
  site: Assessed,
  runIds: readonly string[],
  base: LogPosition,
  tell: (done: number) => void = () => {},
): InSlices<LeadProposal> {
  const { index, walks, assessment } = site
  const verdicts = byId(assessment.runs)
  const given = new Map<string, Run>()
  const chosen: { run: Run; cable: string }[] = []
  for (const [at, id] of runIds.entries()) {
    yield
    tell(at)
    const run = index.runs.get(id)
    const standing = verdicts.get(id)?.grade
    if (!run || standing === undefined || standing === 'clear') continue
    const found = freeCables(index, run, walks.crossings.get(id) ?? [], MOST_LOOKED_AT, given)
    const best = found.find(({ grade }) => severity[grade] < severity[standing])
    if (!best) continue
    given.set(best.cable.id, run)
    chosen.push({ run, cable: best.cable.id })
  }
  const edits = (some: typeof chosen): Edit[] =>
    some.map(({ run, cable }) => ({
      list: 'runs',
      id: run.id,
      base,
      value: { ...run, leads: [{ cable, reversed: false }] },
    }))
  const first = byId(judged(site, edits(chosen)).assessment.runs)
  yield
  const kept = chosen.filter(({ run }) => {
    const after = first.get(run.id)?.grade ?? 'blocked'
    return severity[after] < severity[verdicts.get(run.id)?.grade ?? 'clear']
  })
  const after = judged(site, edits(kept))
  const now = byId(after.assessment.runs)
  const taken = new Set(kept.map(({ run }) => run.id))
  return {
    leads: kept.map(({ run, cable }) => ({
      run: run.id,
      tag: run.tag,
      cable: index.cables.get(cable)?.tag ?? cable,
      before: verdicts.get(run.id)?.grade ?? 'clear',
      after: now.get(run.id)?.grade ?? 'blocked',
    })),
    left: runIds.flatMap((id): LeftRun[] => {
      const run = index.runs.get(id)
      const verdict = verdicts.get(id)
      if (!run || !verdict || verdict.grade === 'clear' || taken.has(id)) return []
      return [{ run: id, tag: run.tag, grade: verdict.grade, leading: leadingFinding(verdict.findings) }]
    }),
    worse: turnedBetween(assessment, after.assessment, after.index).filter(isWorse),
    edits: edits(kept),
  }
}
