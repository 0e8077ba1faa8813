import { catalogueTable } from '../../../../core/drawer/catalogue-table'
import { csvFile } from '../../../csv/csv'
import { loadSite } from '../../../stored.server'
import type { Route } from './+types/catalogue-file'

/** The catalogue as a table, which the import reads back. */
export async function loader({ params }: Route.LoaderArgs) {
  const { plan } = (await loadSite(params.site)).copy
  return csvFile(`${params.site}-catalogue`, catalogueTable(plan.kinds))
}
