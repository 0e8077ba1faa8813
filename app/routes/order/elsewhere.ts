import type { ToldByOthers } from '../../../core/link/outcomes'
import { elsewhere } from '../../elsewhere.server'
import { loadSite } from '../../stored.server'
import type { Route } from './+types/elsewhere'

/**
 * What other sites of this Hallway have to give to one that orders: leads of stores with what was seen of them, what kinds did there and how often they held, and
 * chains that were accepted.
 */
export async function loader({ params }: Route.LoaderArgs) {
  const { copy } = await loadSite(params.site)
  const { stores, kinds, record, recipes } = await elsewhere(copy.plan)
  const told = record.map(({ mode, kind, length, held, tried }): ToldByOthers => ({ mode, kind, length, held, tried }))
  return Response.json({ stores, kinds, told, recipes }, { headers: { 'Cache-Control': 'no-store' } })
}
