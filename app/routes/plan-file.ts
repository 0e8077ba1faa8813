import { loadPlan } from '../stored.server'
import type { Route } from './+types/plan-file'

/** A site as a plan file to download. */
export async function loader({ params }: Route.LoaderArgs) {
  const { plan } = await loadPlan(params.site)
  return new Response(`${JSON.stringify(plan, null, 2)}\n`, {
    headers: {
      'Content-Type': 'application/json; charset=utf-8',
      'Content-Disposition': `attachment; filename="${params.site.replace(/[^a-z0-9._-]/gi, '_')}.json"`,
    },
  })
}
