import { parseWithZod } from '@conform-to/zod/v4'
import { type RefObject, useCallback, useMemo, useState } from 'react'
import type { Assessed } from '../../../core/checks/assess'
import { reassess } from '../../../core/checks/reassess'
import { canBeJudged, directNeeds } from '../../../core/plan/direct-needs'
import { put } from '../../../core/plan/put'
import type { Need } from '../../../core/vocabulary/need'
import type { Run } from '../../../core/vocabulary/run'
import { useSite } from '../../ui/site-context'
import { planWith } from '../run/draft-plan'
import { type TriedBeside, useWhatIf } from '../run/use-what-if'
import { needFormSchema, needOf } from './need-form'

export type NeedDraft = TriedBeside & {
  /** The need as it is typed. */
  need: Need
  /** The runs of its way, in the order in which it takes them. */
  runs: readonly Run[]
  judged: Assessed
  /** Whether anything but a what-if is otherwise than it is saved. */
  changed: boolean
}

/** A need as its form would make it, with the runs of its way as somebody tries them, judged as it is typed. `words` name what is tried beside it. */
export function useNeedDraft(
  form: RefObject<HTMLFormElement | null>,
  need: Need,
  tried: ReadonlyMap<string, Run>,
  words: string | null,
): { draft: NeedDraft; read: () => void } {
  const { assessed } = useSite()
  // what was typed is of the need as the form was made from it
  const [kept, setTyped] = useState<{ typed: Need; of: Need } | null>(null)
  const typed = kept?.of === need ? kept.typed : null
  const { id } = need
  const read = useCallback(() => {
    if (!form.current) return
    const submission = parseWithZod(new FormData(form.current), { schema: needFormSchema })
    if (submission.status === 'success') setTyped({ typed: needOf(submission.value, id, need), of: need })
  }, [form, id, need])
  const drafted = useMemo(() => {
    const { index } = assessed
    let now = index.plan
    const asked = typed && index.devices.has(typed.from) && index.devices.has(typed.to) ? typed : need
    if (asked !== need) now = put(now, 'needs', asked)
    for (const run of tried.values()) {
      const standing = index.runs.get(run.id)
      // what is asked stays, wherever the run then ends
      if (standing && canBeJudged(now, run)) now = planWith(now, { run, needs: directNeeds(now, standing) })
    }
    const site = now === index.plan ? assessed : reassess(assessed, now)
    return { asked, site, runs: (site.walks.paths.get(id) ?? []).map(({ run }) => run) }
  }, [assessed, typed, need, id, tried])
  const beside = useWhatIf(drafted.site, drafted.runs, words)
  const changed = drafted.site !== assessed
  return {
    draft: { ...beside, need: beside.judged.index.needs.get(id) ?? drafted.asked, runs: drafted.runs, changed },
    read,
  }
}
