import { parseWithZod } from '@conform-to/zod/v4'
import { type RefObject, useCallback, useDeferredValue, useEffect, useMemo, useState } from 'react'
import { assessRun, type RunVerdict, walkNeeds } from '../../../core/checks/assess'
import { type Candidate, rankCables } from '../../../core/match/rank'
import { canBeJudged, withRun } from '../../../core/plan/direct-needs'
import type { Plan } from '../../../core/plan/plan'
import type { Run } from '../../../core/plan/run'
import { indexPlan } from '../../../core/plan/site-index'
import { useUnit } from '../../ui/units'
import { changeOf, runFormSchema } from './run-form'

export type Draft = { plan: Plan; run: Run; verdict: RunVerdict; ranking: Candidate[] }

/**
 * The run as the form would make it, judged as it is typed: the same core that the server uses, no request. While the form
 * cannot be read the last readable state stays. The drawer is ranked after the verdict is shown, so that typing never waits for it.
 */
export function useDraft(
  form: RefObject<HTMLFormElement | null>,
  plan: Plan,
  before: Run | null,
): { draft: Draft | null; read: () => void } {
  const unit = useUnit()
  const [candidate, setCandidate] = useState<{ plan: Plan; run: Run } | null>(() =>
    before ? { plan, run: before } : null,
  )
  const read = useCallback(() => {
    if (!form.current) return
    const submission = parseWithZod(new FormData(form.current), { schema: runFormSchema(unit) })
    if (submission.status !== 'success') return
    const { run, needs } = changeOf(submission.value, before, plan, { run: 'draft', need: (at) => `draft-need-${at}` })
    if (canBeJudged(plan, run)) setCandidate({ plan: freedFor(withRun(plan, run, needs), run), run })
  }, [form, plan, before, unit])
  useEffect(read, [read])

  const judged = useMemo(() => {
    if (!candidate) return null
    const index = indexPlan(candidate.plan)
    const crossings = walkNeeds(index).crossings.get(candidate.run.id) ?? []
    return { ...candidate, index, crossings, verdict: assessRun(index, candidate.run, crossings) }
  }, [candidate])
  const settled = useDeferredValue(judged)
  const ranking = useMemo(() => (settled ? rankCables(settled.index, settled.run, settled.crossings) : []), [settled])
  return { draft: judged && { plan: judged.plan, run: judged.run, verdict: judged.verdict, ranking }, read }
}

/** For a look ahead only: a cable that lies in another run is judged as if it lay here. Saving it still says where it lies. */
function freedFor(plan: Plan, run: Run): Plan {
  const wanted = new Set(run.leads.map((lead) => lead.cable))
  return {
    ...plan,
    runs: plan.runs.map((other) =>
      other.id === run.id ? other : { ...other, leads: other.leads.filter((lead) => !wanted.has(lead.cable)) },
    ),
  }
}
