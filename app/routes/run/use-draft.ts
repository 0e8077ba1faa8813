import { parseWithZod } from '@conform-to/zod/v4'
import { type RefObject, useCallback, useEffect, useMemo, useState } from 'react'
import { assessAnew, type RunVerdict } from '../../../core/checks/assess'
import { reassess } from '../../../core/checks/reassess'
import type { Crossing } from '../../../core/checks/situation'
import { type Turned, turnedBetween } from '../../../core/checks/turned'
import { canBeJudged } from '../../../core/plan/direct-needs'
import { byId } from '../../../core/plan/lookup'
import type { Plan } from '../../../core/plan/plan'
import type { Run } from '../../../core/plan/run'
import type { SiteIndex } from '../../../core/plan/site-index'
import { roomOf } from '../../../core/remedy/room'
import type { Trial } from '../../../core/remedy/trials'
import { useSite } from '../../ui/site-context'
import { useUnit } from '../../ui/units'
import { type DraftRun, planWith } from './draft-plan'
import { changeOf, runFormSchema } from './run-form'

export type Draft = {
  index: SiteIndex
  run: Run
  crossings: readonly Crossing[]
  verdict: RunVerdict
  /** What was typed, where somebody has typed. */
  typed: DraftRun | null
  /** Verdicts that are others than those of the saved plan. */
  turned: readonly Turned[]
}

/**
 * The run as the form would make it, judged as it is typed: the same core that the server uses, no request. As long as nobody has typed it is the run as
 * it stands, which is judged already. While the form cannot be read the last readable state stays. `trial` is something tried beside it: then what the
 * run can bear on is judged, and not the whole site.
 */
export function useDraft(
  form: RefObject<HTMLFormElement | null>,
  plan: Plan,
  before: Run | null,
  trial: Trial | null,
): { draft: Draft | null; read: () => void } {
  const unit = useUnit()
  const { assessed } = useSite()
  const [typed, setTyped] = useState<DraftRun | null>(null)
  const read = useCallback(() => {
    if (!form.current) return
    const submission = parseWithZod(new FormData(form.current), { schema: runFormSchema(unit) })
    if (submission.status !== 'success') return
    const draft = changeOf(submission.value, before, plan, { run: 'draft', need: (at) => `draft-need-${at}` })
    if (canBeJudged(plan, draft.run)) setTyped(draft)
  }, [form, plan, before, unit])
  const isTyped = typed !== null
  // what others change meanwhile bears on what is typed
  useEffect(() => {
    if (isTyped) read()
  }, [isTyped, read])

  const draft = useMemo((): Draft | null => {
    // somebody else may have taken away what it names
    const ahead = typed && canBeJudged(plan, typed.run) ? typed : null
    const run = ahead?.run ?? before
    if (!run) return null
    const drafted = ahead ? reassess(assessed, planWith(plan, ahead)) : assessed
    const judged = trial ? assessAnew(tried(drafted.index, run.id, trial)) : drafted
    const { index, walks, assessment } = byId(judged.assessment.runs).has(run.id) ? judged : drafted
    const verdict = byId(assessment.runs).get(run.id)
    if (!verdict) return null
    const crossings = walks.crossings.get(run.id) ?? []
    const turned = judged === assessed ? [] : turnedBetween(assessed.assessment, assessment, index).filter(notNew)
    return { run, index, crossings, verdict, typed: ahead, turned }
  }, [typed, before, assessed, plan, trial])
  return { draft, read }
}

/** What is new has no verdict to compare with. */
const notNew = ({ from }: Turned): boolean => from !== null

function tried(index: SiteIndex, run: string, trial: Trial): Plan {
  return trial.change(roomOf(index, run))
}
