import { nextRunTag } from '../../../core/plan/direct-needs'
import { readForm } from '../../read-form.server'
import { useSite } from '../../ui/site-context'
import type { Route } from './+types/new-run'
import { RunPage } from './run-page'
import { saveRunForm } from './save-run.server'

export const action = async ({ request, params }: Route.ActionArgs) =>
  saveRunForm(request, await readForm(request), params.site, null)

/** Lay a run: the same page as an existing one, empty. */
export default function NewRun({ actionData }: Route.ComponentProps) {
  const { plan } = useSite()
  const texts = { tag: nextRunTag(plan), from: '', to: '', length: '', leads: [''], needs: [] }
  return <RunPage plan={plan} before={null} texts={texts} base={null} lastResult={actionData?.result} />
}
