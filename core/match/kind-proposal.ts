import type { Edit, LogPosition } from '../change/change'
import { type Assessed, leadingFinding } from '../checks/assess'
import { judged } from '../checks/look-ahead'
import { isWorse, turnedBetween } from '../checks/turned'
import { byId } from '../plan/lookup'
import type { Run } from '../vocabulary/run'
import type { InSlices } from '../work/in-slices'
import type { LeadProposal, LeftRun, ProposedLead } from './lead-proposal'
import { leadOfKind } from './offers'

/**
 * One kind of cable for many runs: each gets it at the shortest length it is sold in that spans its route with slack. A run that it does not plug into, or is
 * not sold long enough for, is left as it is. The whole is judged as its edits would make the site, for better or worse.
 */
export function* proposeKind(
  site: Assessed,
  { runs, kind: kindId }: { runs: readonly string[]; kind: string },
  base: LogPosition,
  tell: (done: number) => void = () => {},
): InSlices<LeadProposal> {
  const { index, assessment } = site
  const kind = index.kinds.get(kindId)
  const verdicts = byId(assessment.runs)
  const chosen: { run: Run; edit: Edit; words: string }[] = []
  const left: LeftRun[] = []
  for (const [at, id] of runs.entries()) {
    tell(at)
    const run = index.runs.get(id)
    const verdict = verdicts.get(id)
    if (!run || !verdict) continue
    const lead = kind && leadOfKind(index, kind, run)
    if (lead)
      chosen.push({
        run,
        edit: { list: 'runs', id, base, value: { ...run, leads: [lead] } },
        words: `${kind.name}, ${lead.length} m`,
      })
    else left.push({ run: id, tag: run.tag, grade: verdict.grade, leading: leadingFinding(verdict.findings) })
  }
  yield
  const edits = chosen.map(({ edit }) => edit)
  const after = judged(site, edits)
  const now = byId(after.assessment.runs)
  const mine = new Set(chosen.map(({ run }) => run.id))
  return {
    leads: chosen.map(
      ({ run, words }): ProposedLead => ({
        run: run.id,
        tag: run.tag,
        cable: words,
        before: verdicts.get(run.id)?.grade ?? 'clear',
        after: now.get(run.id)?.grade ?? 'blocked',
      }),
    ),
    left,
    // what becomes of the runs themselves stands in their lines
    worse: turnedBetween(assessment, after.assessment, after.index).filter(
      (each) => isWorse(each) && !mine.has(each.id),
    ),
    edits,
  }
}
