import { planText } from '../../core/plan/write'
import { loadSite } from '../stored.server'
import type { Route } from './+types/plan-file'

/** A site as a plan file to download. */
export async function loader({ params }: Route.LoaderArgs) {
  const { copy } = await loadSite(params.site)
  return new Response(planText(copy.plan), {
    headers: {
      'Content-Type': 'application/json; charset=utf-8',
      'Content-Disposition': `attachment; filename="${params.site.replace(/[^a-z0-9._-]/gi, '_')}.json"`,
    },
  })
}
