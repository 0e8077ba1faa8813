import { parseWithZod } from '@conform-to/zod/v4'
import { type RefObject, useCallback, useDeferredValue, useEffect, useMemo, useState } from 'react'
import type { RunVerdict } from '../../../core/checks/assess'
import { reassess } from '../../../core/checks/reassess'
import { type Candidate, rankCables } from '../../../core/match/rank'
import { canBeJudged, withRun } from '../../../core/plan/direct-needs'
import type { Plan } from '../../../core/plan/plan'
import type { Run } from '../../../core/plan/run'
import { useSite } from '../../ui/site-context'
import { useUnit } from '../../ui/units'
import { changeOf, runFormSchema } from './run-form'

export type Draft = { plan: Plan; run: Run; verdict: RunVerdict; ranking: readonly Candidate[] | null }

/**
 * The run as the form would make it, judged as it is typed: the same core that the server uses, no request. As long as nobody has typed it is the run as
 * it stands, which is judged already. While the form cannot be read the last readable state stays. The drawer is ranked once the verdict is shown, so
 * that neither opening a run nor typing waits for it; until then the ranking is null.
 */
export function useDraft(
  form: RefObject<HTMLFormElement | null>,
  plan: Plan,
  before: Run | null,
): { draft: Draft | null; read: () => void } {
  const unit = useUnit()
  const { assessed } = useSite()
  const [typed, setTyped] = useState<{ plan: Plan; run: Run } | null>(null)
  const read = useCallback(() => {
    if (!form.current) return
    const submission = parseWithZod(new FormData(form.current), { schema: runFormSchema(unit) })
    if (submission.status !== 'success') return
    const { run, needs } = changeOf(submission.value, before, plan, { run: 'draft', need: (at) => `draft-need-${at}` })
    if (canBeJudged(plan, run)) setTyped({ plan: freedFor(withRun(plan, run, needs), run), run })
  }, [form, plan, before, unit])
  const isTyped = typed !== null
  // what others change meanwhile bears on what is typed
  useEffect(() => {
    if (isTyped) read()
  }, [isTyped, read])

  const judged = useMemo(() => {
    const run = typed?.run ?? before
    if (!run) return null
    const { index, walks, assessment } = typed ? reassess(assessed, typed.plan) : assessed
    const verdict = assessment.runs.find(({ id }) => id === run.id)
    return verdict ? { run, index, crossings: walks.crossings.get(run.id) ?? [], verdict } : null
  }, [typed, before, assessed])
  const settled = useDeferredValue(judged, null)
  const ranking = useMemo(() => settled && rankCables(settled.index, settled.run, settled.crossings), [settled])
  return { draft: judged && { plan: judged.index.plan, run: judged.run, verdict: judged.verdict, ranking }, read }
}

/** For a look ahead only: a cable that lies in another run is judged as if it lay here. Saving it still says where it lies. */
function freedFor(plan: Plan, run: Run): Plan {
  const wanted = new Set(run.leads.map((lead) => lead.cable))
  return {
    ...plan,
    runs: plan.runs.map((other) =>
      other.id !== run.id && other.leads.some((lead) => wanted.has(lead.cable))
        ? { ...other, leads: other.leads.filter((lead) => !wanted.has(lead.cable)) }
        : other,
    ),
  }
}
