import { loadSite } from '../../stored.server'
import { storesFor } from '../../stores.server'
import type { Route } from './+types/stores'

/** What the stores of this Hallway have to give to a site: sites without runs, with their free leads and what was seen of these. */
export async function loader({ params }: Route.LoaderArgs) {
  const { copy } = await loadSite(params.site)
  return Response.json(await storesFor(copy.plan), { headers: { 'Cache-Control': 'no-store' } })
}
