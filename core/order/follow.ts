import { leadCame } from '../link/lead-came'
import { byId } from '../plan/lookup'
import type { Plan } from '../plan/plan'
import type { SiteIndex } from '../plan/site-index'
import { countsOf, type Order, type OrderLine, toCome, waitingToTag } from '../vocabulary/order'
import { addDays, type Day, daysFrom } from './days'

/** Where an order line stands, as far as it has come. */
export const LINE_STATES = ['planned', 'ordered', 'partly here', 'to tag', 'in the drawer', 'sent back'] as const
export type LineState = (typeof LINE_STATES)[number]

export function lineState(line: OrderLine, order: Pick<Order, 'ordered'>): LineState {
  const { here, back } = countsOf(line)
  if (here > 0 && back >= here && here >= toCome(line)) return 'sent back'
  if (here > 0 && here < toCome(line)) return 'partly here'
  if (here >= toCome(line)) return waitingToTag(line) > 0 ? 'to tag' : 'in the drawer'
  return order.ordered === undefined ? 'planned' : 'ordered'
}

/** The terms a line was bought on: days to deliver and to send back, as the offer has them, else the supplier, else the kind. */
export function termsOfLine(plan: Plan, line: OrderLine): { leadDays: number | null; returnDays: number | null } {
  const order = byId(plan.orders).get(line.order)
  const supplier = order?.supplier === undefined ? undefined : byId(plan.suppliers).get(order.supplier)
  const offer = plan.offers.find(
    (each) => each.supplier === supplier?.id && each.kind === line.kind && each.length === line.length,
  )
  const kind = byId(plan.kinds).get(line.kind)
  return {
    leadDays: offer?.leadDays ?? supplier?.leadDays ?? kind?.leadDays ?? null,
    returnDays: offer?.returnDays ?? supplier?.returnDays ?? kind?.returnDays ?? null,
  }
}

/** The last day on which the first that came of a line may go back; null where nothing came, nothing may go back, or nobody said. */
export function lastReturnDay(plan: Plan, line: OrderLine): Day | null {
  const { returnDays } = termsOfLine(plan, line)
  const first = (line.arrived ?? []).map(({ on }) => on).sort()[0]
  return first === undefined || !returnDays ? null : addDays(first, returnDays)
}

/** The day a line is expected; null where it is here, not ordered, or nobody promised. */
export function expectedDay(plan: Plan, line: OrderLine): Day | null {
  const ordered = byId(plan.orders).get(line.order)?.ordered
  if (ordered === undefined || countsOf(line).here >= toCome(line)) return null
  return line.promised ?? promisedDay(plan, line, ordered)
}

/** The day a line is promised for when it is sent off on a day; null where nobody promises one. */
export function promisedDay(plan: Plan, line: OrderLine, ordered: Day): Day | null {
  const { leadDays } = termsOfLine(plan, line)
  return leadDays === null ? null : addDays(ordered, leadDays)
}

/** Something that has its day: a delivery, a decision, the last day to send something back. */
export type Due = {
  line: string
  order: string
  what: 'arrives' | 'decide' | 'last day to send back'
  on: Day
  /** Cables of the line that have not passed: nobody has seen them do what they are for, or they failed. */
  unproved: number
}

/** So long before the last day a cable that nobody has proved says so. */
export const WARN_DAYS = 2

/** All days to keep, the next first. What went back, and what was proved and is kept, asks for nothing. */
export function duesOf(index: SiteIndex): Due[] {
  const { plan } = index
  const dues = plan.orderLines.flatMap((line): Due[] => {
    const { here, tagged, back } = countsOf(line)
    const gone = sentBack(line)
    const unproved =
      (line.tagged ?? []).filter((id) => !gone.has(id) && !isProved(index, id)).length +
      Math.max(0, here - tagged - back)
    const of = { line: line.id, order: line.order, unproved }
    const expected = expectedDay(plan, line)
    const last = lastReturnDay(plan, line)
    const open = here > back
    return [
      ...(expected === null ? [] : [{ ...of, what: 'arrives' as const, on: expected }]),
      ...(line.decide === undefined || !open ? [] : [{ ...of, what: 'decide' as const, on: line.decide }]),
      ...(last === null || !open || unproved === 0
        ? []
        : [{ ...of, what: 'last day to send back' as const, on: last }]),
    ]
  })
  return dues.sort((one, other) => (one.on < other.on ? -1 : one.on > other.on ? 1 : 0))
}

function isProved(index: SiteIndex, id: string): boolean {
  const cable = index.cables.get(id)
  return cable !== undefined && leadCame(index, cable) === 'passed'
}

/** Order lines that wait for somebody: planned and not sent off, here and not tagged, or unproved while they may still go back. */
export function linesWaiting(index: SiteIndex): number {
  const { plan } = index
  if (plan.orderLines.length === 0) return 0
  const orders = byId(plan.orders)
  const due = new Set(duesOf(index).flatMap(({ line, what }) => (what === 'arrives' ? [] : [line])))
  return plan.orderLines.filter(
    (line) => orders.get(line.order)?.ordered === undefined || waitingToTag(line) > 0 || due.has(line.id),
  ).length
}

/** How near a day is: over, within the days of warning, or later. */
export function nearness(due: Due, today: Day): 'over' | 'near' | 'later' {
  const days = daysFrom(today, due.on)
  return days < 0 ? 'over' : days <= WARN_DAYS ? 'near' : 'later'
}

/** What came of trying before an order is sent off: a sample has passed, none is left that could, or it is still open; null where it waits for nothing. */
export function trialOf(index: SiteIndex, { after }: Pick<Order, 'after'>): 'passed' | 'failed' | 'open' | null {
  if (!after) return null
  const lines = byId(index.plan.orderLines)
  const states = after.flatMap((id) => {
    const line = lines.get(id)
    return line ? sampleOf(index, line) : []
  })
  if (states.includes('passed')) return 'passed'
  return states.includes('open') ? 'open' : 'failed'
}

/** Its cables that went back: nothing of them is waited for. */
const sentBack = ({ back }: OrderLine): ReadonlySet<string> =>
  new Set((back ?? []).flatMap(({ cables = [] }) => cables))

/** What came of a line that was bought to try. */
function sampleOf(index: SiteIndex, line: OrderLine): 'passed' | 'failed' | 'open' {
  const gone = sentBack(line)
  const kept = (line.tagged ?? []).flatMap((id) => (gone.has(id) ? [] : (index.cables.get(id) ?? [])))
  const came = kept.map((cable) => leadCame(index, cable))
  if (came.includes('passed')) return 'passed'
  const { here, back } = countsOf(line)
  return came.includes('open') || here === 0 || here - back > kept.length ? 'open' : 'failed'
}

/** Runs whose lead is ordered and not here yet: nothing is to be decided for them. */
export function runsOnOrder(plan: Plan): ReadonlySet<string> {
  const orders = byId(plan.orders)
  const runs = byId(plan.runs)
  return new Set(
    plan.orderLines.flatMap(({ order, kind, length, runs: wanting = [] }) => {
      if (orders.get(order)?.ordered === undefined) return []
      return wanting.filter((id) =>
        runs.get(id)?.leads.some((lead) => 'kind' in lead && lead.kind === kind && lead.length === length),
      )
    }),
  )
}
