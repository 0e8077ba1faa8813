import { useSearchParams } from 'react-router'
import { nextRunTag } from '../../../core/plan/direct-needs'
import { readForm } from '../../read-form.server'
import { useSite } from '../../ui/site-context'
import { useUnit } from '../../ui/units'
import type { Route } from './+types/new-run'
import { textsLike } from './run-form'
import { RunPage } from './run-page'
import { saveRunForm } from './save-run.server'

export const action = async ({ request, params }: Route.ActionArgs) =>
  saveRunForm(request, await readForm(request), params.site, null)

/** Lay a run: the same page as an existing one, empty, or begun like one that is there. */
export default function NewRun({ actionData }: Route.ComponentProps) {
  const { plan, index } = useSite()
  const unit = useUnit()
  const like = index.runs.get(useSearchParams()[0].get('like') ?? '')
  const tag = nextRunTag(plan)
  const texts = like
    ? { ...textsLike(plan, like, unit), tag }
    : { tag, from: '', to: '', length: '', leads: [''], needs: [] }
  return <RunPage plan={plan} before={null} texts={texts} base={null} lastResult={actionData?.result} />
}
