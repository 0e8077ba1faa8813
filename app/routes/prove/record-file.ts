import { data } from 'react-router'
import { indexPlan } from '../../../core/plan/site-index'
import { adviceOf } from '../../../core/prove/advice'
import { recordTold } from '../../../core/prove/record'
import { adviceSheet, recordTable, soakTable, socketTable } from '../../../core/prove/record-sheets'
import { socketRecordOf, socketRows } from '../../../core/prove/socket-record'
import { csvFile } from '../../csv/csv'
import { elsewhere } from '../../elsewhere.server'
import { makeSheetPdf } from '../../off-thread.server'
import { loadSite } from '../../stored.server'
import { readUnit } from '../../unit-cookie'
import type { Route } from './+types/record-file'
import { grainOf, weightOf } from './record-grain'

/** The record as a table, and what it advises on paper. */
export async function loader({ request, params }: Route.LoaderArgs) {
  const { copy } = await loadSite(params.site)
  const index = indexPlan(copy.plan)
  const unit = readUnit(request)
  switch (params.file) {
    case 'record.csv': {
      const { record } = await elsewhere(copy.plan)
      const { searchParams } = new URL(request.url)
      const rows = recordTold(index, record, grainOf(searchParams), weightOf(searchParams, index.plan.policy))
      return csvFile(`${params.site}-record`, recordTable(rows, unit))
    }
    case 'sockets.csv': {
      const { sockets } = await elsewhere(copy.plan)
      return csvFile(`${params.site}-sockets`, socketTable(socketRows([...socketRecordOf(index), ...sockets])))
    }
    case 'soaks.csv':
      return csvFile(`${params.site}-soaks`, soakTable(index))
    case 'advice.pdf': {
      const day = new Date().toISOString().slice(0, 10)
      const { site, policy } = copy.plan
      const own = { advice: adviceOf(index), site: site.name, currency: policy.currency }
      const others = (await elsewhere(copy.plan)).advice.map(({ id: _, site, currency, ...advice }) => ({
        advice,
        site,
        currency,
      }))
      const sheet = adviceSheet(own, others, day, unit)
      const work = await makeSheetPdf(sheet, request.signal)
      if (!work.done) throw data(work.problem, { status: work.status })
      return new Response(new Uint8Array(work.value), {
        headers: {
          'Content-Type': 'application/pdf',
          'Content-Disposition': `attachment; filename="${params.site}-advice.pdf"`,
        },
      })
    }
    default:
      throw data(null, { status: 404 })
  }
}
