import { verdictTable } from '../../../core/report/verdict-list'
import { csvFile } from '../../csv/csv'
import { loadSite } from '../../stored.server'
import { readUnit } from '../../unit-cookie'
import { openView } from '../../views.server'
import type { Route } from './+types/verdicts-file'

/** Every verdict of a site as a table, to send or to sort. */
export async function loader({ request, params }: Route.LoaderArgs) {
  const { copy, identity } = await loadSite(params.site)
  const { assessed } = await openView(params.site, copy, identity)
  return csvFile(`${params.site}-verdicts`, verdictTable(assessed, readUnit(request)))
}
