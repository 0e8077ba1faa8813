import { data } from 'react-router'
import { priceListTable } from '../../../core/order/price-list'
import { byId } from '../../../core/plan/lookup'
import { csvFile } from '../../csv/csv'
import { loadSite } from '../../stored.server'
import type { Route } from './+types/prices-file'

/** What a supplier sells, as the table that its page reads back. */
export async function loader({ params }: Route.LoaderArgs) {
  const { plan } = (await loadSite(params.site)).copy
  if (!byId(plan.suppliers).has(params.supplier)) throw data(null, { status: 404 })
  return csvFile(`${params.site}-${params.supplier}-prices`, priceListTable(plan, params.supplier))
}
