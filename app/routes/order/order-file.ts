import { data } from 'react-router'
import { orderSheet, orderTable, orderText } from '../../../core/order/sheet'
import { byId } from '../../../core/plan/lookup'
import { csvFile } from '../../csv/csv'
import { makeSheetPdf } from '../../off-thread.server'
import { loadSite } from '../../stored.server'
import { readUnit } from '../../unit-cookie'
import type { Route } from './+types/order-file'

/** An order to be sent: as a table, as the text of a mail, or on paper. */
export async function loader({ request, params }: Route.LoaderArgs) {
  const { copy } = await loadSite(params.site)
  const order = byId(copy.plan.orders).get(params.order)
  if (!order) throw data(null, { status: 404 })
  const sheet = orderSheet(copy.plan, order, readUnit(request))
  switch (params.file) {
    case 'order.csv':
      return csvFile(`${params.site}-${order.id}`, orderTable(sheet))
    case 'order.txt':
      return download(orderText(sheet), 'text/plain; charset=utf-8', `${order.id}.txt`)
    case 'order.pdf': {
      const work = await makeSheetPdf(sheet, request.signal)
      if (!work.done) throw data(work.problem, { status: work.status })
      return download(new Uint8Array(work.value), 'application/pdf', `${order.id}.pdf`)
    }
    default:
      throw data(null, { status: 404 })
  }
}

const download = (body: string | Uint8Array<ArrayBuffer>, type: string, name: string): Response =>
  new Response(body, { headers: { 'Content-Type': type, 'Content-Disposition': `attachment; filename="${name}"` } })
