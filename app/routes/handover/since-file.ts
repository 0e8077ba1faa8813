import { sinceTable } from '../../../core/handover/since'
import { csvFile } from '../../csv/csv'
import { sinceHandover } from '../../off-thread.server'
import type { Route } from './+types/since-file'
import { answered, handoverIn } from './handed.server'

/** What has changed since a handover, as a table. */
export async function loader({ params }: Route.LoaderArgs) {
  const { id } = await handoverIn(params.site, params.handover)
  const { since } = answered(await sinceHandover({ siteId: params.site, handover: id }))
  return csvFile(`${params.site}-since-${id}`, sinceTable(since))
}
