import { elsewhere } from '../../elsewhere.server'
import { loadSite } from '../../stored.server'
import type { Route } from './+types/elsewhere'

/** What other sites of this Hallway have to give to one that orders: leads of stores with what was seen of them, and what kinds did there. */
export async function loader({ params }: Route.LoaderArgs) {
  const { copy } = await loadSite(params.site)
  return Response.json(await elsewhere(copy.plan), { headers: { 'Cache-Control': 'no-store' } })
}
