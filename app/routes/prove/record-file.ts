import { data } from 'react-router'
import { indexPlan } from '../../../core/plan/site-index'
import { adviceOf } from '../../../core/prove/advice'
import { recordOf, recordRows } from '../../../core/prove/record'
import { adviceSheet, recordTable } from '../../../core/prove/record-sheets'
import { csvFile } from '../../csv/csv'
import { elsewhere } from '../../elsewhere.server'
import { makeSheetPdf } from '../../off-thread.server'
import { loadSite } from '../../stored.server'
import { readUnit } from '../../unit-cookie'
import type { Route } from './+types/record-file'
import { grainOf } from './record-grain'

/** The record as a table, and what it advises on paper. */
export async function loader({ request, params }: Route.LoaderArgs) {
  const { copy } = await loadSite(params.site)
  const index = indexPlan(copy.plan)
  const unit = readUnit(request)
  switch (params.file) {
    case 'record.csv': {
      const { record } = await elsewhere(copy.plan)
      const rows = recordRows({ own: recordOf(index), others: record }, grainOf(new URL(request.url).searchParams))
      return csvFile(`${params.site}-record`, recordTable(rows, unit))
    }
    case 'advice.pdf': {
      const day = new Date().toISOString().slice(0, 10)
      const sheet = adviceSheet(adviceOf(index), copy.plan.site.name, day, copy.plan.policy.currency, unit)
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
