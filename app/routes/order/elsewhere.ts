import { elsewhere } from '../../elsewhere.server'
import { loadSite } from '../../stored.server'
import type { Route } from './+types/elsewhere'

/** What other sites of this Hallway have to give to one that orders: leads of stores with what was seen of them, what kinds did there, and chains that were accepted. */
export async function loader({ params }: Route.LoaderArgs) {
  const { copy } = await loadSite(params.site)
  const { stores, kinds, recipes } = await elsewhere(copy.plan)
  return Response.json({ stores, kinds, recipes }, { headers: { 'Cache-Control': 'no-store' } })
}
