import { catalogueTable } from '../../../core/drawer/catalogue-table'
import { csvFile } from '../../csv/csv'
import { loadPlan } from '../../stored.server'
import type { Route } from './+types/catalogue-file'

/** The catalogue as a table, which the import reads back. */
export async function loader({ params }: Route.LoaderArgs) {
  const { plan } = await loadPlan(params.site)
  return csvFile(`${params.site}-catalogue`, catalogueTable(plan.kinds))
}
