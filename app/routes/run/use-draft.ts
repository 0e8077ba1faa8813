import { parseWithZod } from '@conform-to/zod/v4'
import { type RefObject, useCallback, useEffect, useMemo, useState } from 'react'
import type { RunVerdict } from '../../../core/checks/assess'
import { reassess } from '../../../core/checks/reassess'
import type { Crossing } from '../../../core/checks/situation'
import { canBeJudged } from '../../../core/plan/direct-needs'
import type { Plan } from '../../../core/plan/plan'
import type { SiteIndex } from '../../../core/plan/site-index'
import type { Run } from '../../../core/vocabulary/run'
import { useSite } from '../../ui/site-context'
import { useUnit } from '../../ui/units'
import { planWith, type RunAsTyped } from './draft-plan'
import { changeOf, runFormSchema } from './run-form'
import { type TriedBeside, useWhatIf } from './use-what-if'

export type RunDraft = TriedBeside & {
  index: SiteIndex
  run: Run
  crossings: readonly Crossing[]
  verdict: RunVerdict
  /** What was typed, where somebody has typed. */
  typed: RunAsTyped | null
}

/**
 * The run as the form would make it, judged as it is typed: the same core that the server uses, no request. As long as nobody has typed it is the run as
 * it stands, which is judged already. While the form cannot be read the last readable state stays. `words` name what is tried beside it.
 */
export function useDraft(
  form: RefObject<HTMLFormElement | null>,
  plan: Plan,
  before: Run | null,
  words: string | null,
): { draft: RunDraft | null; read: () => void } {
  const unit = useUnit()
  const { assessed } = useSite()
  const [typed, setTyped] = useState<RunAsTyped | null>(null)
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

  const drafted = useMemo(() => {
    // somebody else may have taken away what it names
    const ahead = typed && canBeJudged(plan, typed.run) ? typed : null
    const run = ahead?.run ?? before
    return { ahead, runs: run ? [run] : [], site: ahead ? reassess(assessed, planWith(plan, ahead)) : assessed }
  }, [typed, before, assessed, plan])
  const { judged, ...beside } = useWhatIf(drafted.site, drafted.runs, words)
  const { whatIfs, whatIf, turned } = beside
  const draft = useMemo((): RunDraft | null => {
    const [run] = drafted.runs
    const verdict = run && judged.assessment.runs.find(({ id }) => id === run.id)
    if (!run || !verdict) return null
    const crossings = judged.walks.crossings.get(run.id) ?? NONE
    return { whatIfs, whatIf, turned, run, index: judged.index, crossings, verdict, typed: drafted.ahead }
  }, [drafted, judged, whatIfs, whatIf, turned])
  return { draft, read }
}
const NONE: readonly Crossing[] = []
