import { byId } from '../plan/lookup'
import type { Plan } from '../plan/plan'
import { countsOf, toCome } from '../vocabulary/order'
import { type Day, daysFrom } from './days'

/** How a supplier has delivered: over the lines that came whole, days from the order to the last piece. */
export type Delivered = {
  lines: number
  least: number
  most: number
  mean: number
  /** Lines that came after the day they were promised for, and of how many a day was promised. */
  late: number
  promised: number
  /** Pieces that were sent back, of those that came. */
  back: number
  here: number
}

/** How a supplier has delivered until now; null where nothing came from there. */
export function deliveredBy(plan: Plan, supplier: string): Delivered | null {
  const orders = byId(plan.orders)
  const days: number[] = []
  let [late, promised, back, here] = [0, 0, 0, 0]
  for (const line of plan.orderLines) {
    const order = orders.get(line.order)
    if (order?.supplier !== supplier) continue
    const counts = countsOf(line)
    back += counts.back
    here += counts.here
    const last = lastArrival(line.arrived)
    if (order.ordered === undefined || last === null || counts.here < toCome(line)) continue
    days.push(daysFrom(order.ordered, last))
    if (line.promised === undefined) continue
    promised += 1
    late += Number(last > line.promised)
  }
  if (here === 0) return null
  const mean = days.length === 0 ? 0 : days.reduce((sum, each) => sum + each, 0) / days.length
  return { lines: days.length, least: Math.min(...days), most: Math.max(...days), mean, late, promised, back, here }
}

const lastArrival = (arrived: readonly { on: Day }[] = []): Day | null =>
  arrived.reduce<Day | null>((last, { on }) => (last === null || on > last ? on : last), null)
