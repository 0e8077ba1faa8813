import { cableTable } from '../../../../core/drawer/cable-table'
import { csvFile } from '../../../csv/csv'
import { loadSite } from '../../../stored.server'
import type { Route } from './+types/drawer-file'

/** The drawer as a table, which the import reads back. */
export async function loader({ params }: Route.LoaderArgs) {
  const { plan } = (await loadSite(params.site)).copy
  return csvFile(`${params.site}-drawer`, cableTable(plan, plan.cables))
}
