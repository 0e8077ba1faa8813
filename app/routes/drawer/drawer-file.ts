import { cableTable } from '../../../core/drawer/cable-table'
import { knownCable } from '../../../core/link/known'
import { gradeFacts } from '../../../core/standards/grades'
import { csvFile } from '../../csv/csv'
import { loadPlan } from '../../stored.server'
import type { Route } from './+types/drawer-file'

/** The drawer as a table, which the import reads back. */
export async function loader({ params }: Route.LoaderArgs) {
  const { plan } = await loadPlan(params.site)
  const kinds = new Map(plan.kinds.map((kind) => [kind.id, kind]))
  const rows = cableTable(plan, plan.cables, (cable) => {
    const { grade } = knownCable(cable, kinds.get(cable.kind ?? ''))
    return grade.value === null ? '' : gradeFacts[grade.value].name
  })
  return csvFile(`${params.site}-drawer`, rows)
}
