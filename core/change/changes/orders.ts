import { freeIds, slugOf } from '../../plan/free-id'
import { byId } from '../../plan/lookup'
import { nextTag } from '../../plan/next-tag'
import type { Plan } from '../../plan/plan'
import type { Cable, CableKind } from '../../vocabulary/cable'
import { countsOf, type Offer, type Order, type OrderLine, type Supplier, waitingToTag } from '../../vocabulary/order'
import type { Run, RunLead } from '../../vocabulary/run'
import type { ChangeToMake, Edit, LogPosition } from '../change'

/** Saves a supplier; `base` null: it is new. */
export const saveSupplier = (supplier: Supplier, base: LogPosition | null): ChangeToMake => ({
  what: { name: base === null ? 'add supplier' : 'change supplier', about: [supplier.name] },
  edits: [{ list: 'suppliers', id: supplier.id, base, value: supplier }],
})

/** Removes a supplier with what it offers. Its orders keep it from being removed. */
export function removeSupplier(plan: Plan, base: LogPosition, { id, name }: Supplier): ChangeToMake {
  const offers = plan.offers.filter(({ supplier }) => supplier === id)
  return {
    what: { name: 'remove supplier', about: [name] },
    edits: [
      ...offers.map((offer): Edit => ({ list: 'offers', id: offer.id, base, value: null })),
      ...withPrices(plan, base, offers, new Set(offers.map((offer) => offer.id)), []),
      { list: 'suppliers', id, base, value: null },
    ],
  }
}

/** Puts offers beside those there are: one of the same supplier, kind and length is replaced. The catalogue keeps the least price of each length. */
export function putOffers(plan: Plan, base: LogPosition, offers: readonly Omit<Offer, 'id'>[]): ChangeToMake {
  const keyOf = ({ supplier, kind, length }: Omit<Offer, 'id'>): string => `${supplier} ${kind} ${length}`
  const known = new Map(plan.offers.map((offer) => [keyOf(offer), offer.id]))
  const idOf = freeIds(plan.offers.map(({ id }) => id))
  // the last of several for one thing
  const fresh = [...new Map(offers.map((offer) => [keyOf(offer), offer])).values()].map(
    (offer): Offer => ({
      ...offer,
      id: known.get(keyOf(offer)) ?? idOf(slugOf(`${offer.supplier} ${offer.kind} ${offer.length}`, 'offer')),
    }),
  )
  const kinds = byId(plan.kinds)
  return {
    what: { name: 'put offers', about: [...new Set(fresh.map(({ kind }) => kinds.get(kind)?.name ?? kind))] },
    edits: [
      ...fresh.map(
        (value): Edit => ({
          list: 'offers',
          id: value.id,
          base: known.has(keyOf(value)) ? base : null,
          value,
        }),
      ),
      ...withPrices(plan, base, fresh, new Set(fresh.map(({ id }) => id)), fresh),
    ],
  }
}

/** Removes an offer. */
export const removeOffer = (plan: Plan, base: LogPosition, offer: Offer): ChangeToMake => ({
  what: { name: 'remove offer', about: [byId(plan.kinds).get(offer.kind)?.name ?? offer.kind] },
  edits: [
    { list: 'offers', id: offer.id, base, value: null },
    ...withPrices(plan, base, [offer], new Set([offer.id]), []),
  ],
})

/** The kinds that some offers are of, with the least price of each length among what is then offered: a price is the same wherever it is asked. */
function withPrices(
  plan: Plan,
  base: LogPosition,
  touched: readonly Pick<Offer, 'kind'>[],
  replaced: ReadonlySet<string>,
  fresh: readonly Offer[],
): Edit[] {
  const offers = [...plan.offers.filter(({ id }) => !replaced.has(id)), ...fresh]
  const kinds = byId(plan.kinds)
  return [...new Set(touched.map(({ kind }) => kind))].flatMap((id): Edit[] => {
    const kind = kinds.get(id)
    if (!kind) return []
    const least = new Map<number, number>()
    for (const { kind: of, length, price } of offers)
      if (of === id) least.set(length, Math.min(price, least.get(length) ?? price))
    const stock = [
      ...kind.stock.map(({ length, price }) => ({ length, price: least.get(length) ?? price })),
      ...[...least].flatMap(([length, price]) =>
        kind.stock.some((each) => each.length === length) ? [] : [{ length, price }],
      ),
    ]
    const changed = JSON.stringify(stock) !== JSON.stringify(kind.stock)
    return changed ? [{ list: 'kinds', id, base, value: { ...kind, stock } satisfies CableKind }] : []
  })
}

/** What was decided: what lies in which run, and so many of each article from each supplier. */
export type DecidedOrder = {
  runs: readonly { run: string; leads: readonly RunLead[] }[]
  lines: readonly { supplier: string | null; kind: string; length: number; count: number; price: number }[]
}

/**
 * Takes what was decided: the runs get their leads, and an order is planned for each supplier. Orders that were planned and not sent off are planned anew.
 */
export function takeOrder(plan: Plan, base: LogPosition, { runs, lines }: DecidedOrder): ChangeToMake {
  const known = byId(plan.runs)
  const planned = plan.orders.filter(({ ordered }) => ordered === undefined)
  const gone = new Set(planned.map(({ id }) => id))
  const orderId = freeIds(plan.orders.map(({ id }) => id))
  const lineId = freeIds(plan.orderLines.map(({ id }) => id))
  const suppliers = byId(plan.suppliers)
  const fresh = [...new Set(lines.map(({ supplier }) => supplier))].map(
    (supplier): { supplier: string | null; order: Order } => {
      const name = supplier === null ? 'To buy' : `Order at ${suppliers.get(supplier)?.name ?? supplier}`
      return {
        supplier,
        order: {
          id: orderId(slugOf(name, 'order')),
          name: name.slice(0, 120),
          ...(supplier === null ? {} : { supplier }),
        },
      }
    },
  )
  const wanting = new Map<string, string[]>()
  for (const { run, leads } of runs)
    for (const lead of leads)
      if ('kind' in lead) {
        const key = `${lead.kind} ${lead.length}`
        wanting.set(key, [...(wanting.get(key) ?? []), run])
      }
  const value = (line: DecidedOrder['lines'][number], order: string): OrderLine => {
    // each run is on one line, even where two suppliers share an article
    const mine = wanting.get(`${line.kind} ${line.length}`)?.splice(0, line.count) ?? []
    const { kind, length, count, price } = line
    return { id: lineId(slugOf(`${order} ${kind}`, 'line')), order, kind, length, count, price, runs: mine }
  }
  return {
    what: { name: 'plan order', about: runs.map(({ run }) => known.get(run)?.tag ?? run) },
    edits: [
      ...runs.flatMap(({ run, leads }): Edit[] => {
        const now = known.get(run)
        return now && !sameLeads(now, leads)
          ? [{ list: 'runs', id: run, base, value: { ...now, leads: [...leads] } }]
          : []
      }),
      ...plan.orderLines.flatMap(({ id, order }): Edit[] =>
        gone.has(order) ? [{ list: 'orderLines', id, base, value: null }] : [],
      ),
      ...planned.map(({ id }): Edit => ({ list: 'orders', id, base, value: null })),
      ...fresh.map(({ order }): Edit => ({ list: 'orders', id: order.id, base: null, value: order })),
      ...fresh.flatMap(({ supplier, order }) =>
        lines.flatMap((line): Edit[] => {
          if (line.supplier !== supplier) return []
          const made = value(line, order.id)
          return [{ list: 'orderLines', id: made.id, base: null, value: made }]
        }),
      ),
    ],
  }
}

const sameLeads = ({ leads }: Run, others: readonly RunLead[]): boolean =>
  JSON.stringify(leads) === JSON.stringify(others)

/** Notes that an order was sent off. */
export const sendOrder = (order: Order, base: LogPosition, on: string): ChangeToMake => ({
  what: { name: 'send order', about: [order.name] },
  edits: [{ list: 'orders', id: order.id, base, value: { ...order, ordered: on } }],
})

/** Removes an order with its lines. Cables that came of it stay. */
export const removeOrder = (plan: Plan, base: LogPosition, order: Order): ChangeToMake => ({
  what: { name: 'remove order', about: [order.name] },
  edits: [
    ...plan.orderLines.flatMap(({ id, order: of }): Edit[] =>
      of === order.id ? [{ list: 'orderLines', id, base, value: null }] : [],
    ),
    { list: 'orders', id: order.id, base, value: null },
  ],
})

/** Notes what came of a line. */
export const takeArrival = (
  plan: Plan,
  base: LogPosition,
  line: OrderLine,
  arrival: { on: string; count: number },
): ChangeToMake => ({
  what: { name: 'take arrival', about: [`${arrival.count} x ${nameOf(plan, line)}`] },
  edits: [{ list: 'orderLines', id: line.id, base, value: { ...line, arrived: [...(line.arrived ?? []), arrival] } }],
})

/** Notes until when it is decided what of a line is kept; null: it is bought for good. */
export function decideBy(plan: Plan, base: LogPosition, line: OrderLine, on: string | null): ChangeToMake {
  const { decide: _, ...rest } = line
  return {
    what: { name: 'try line', about: [nameOf(plan, line)] },
    edits: [{ list: 'orderLines', id: line.id, base, value: on === null ? rest : { ...rest, decide: on } }],
  }
}

/** Makes cables of what came, with the next free tags, and lays them in the runs they were bought for. `lengths` are as taped; the listing's where nobody taped. */
export function tagArrived(
  plan: Plan,
  base: LogPosition,
  line: OrderLine,
  lengths: readonly (number | null)[] = [],
): ChangeToMake {
  const kind = byId(plan.kinds).get(line.kind)
  const count = kind ? waitingToTag(line) : 0
  const idOf = freeIds(plan.cables.map(({ id }) => id))
  const tags = plan.cables.map(({ tag }) => tag)
  const cables = Array.from({ length: count }, (_, at): Cable => {
    const tag = nextTag(tags)
    tags.push(tag)
    return cableOf(kind as CableKind, idOf(slugOf(tag, 'cable')), tag, lengths[at] ?? line.length)
  })
  const laid = runsToLay(plan, line).slice(0, cables.length)
  return {
    what: { name: 'tag arrived', about: cables.map(({ tag }) => tag) },
    edits: [
      ...cables.map((value): Edit => ({ list: 'cables', id: value.id, base: null, value })),
      ...laid.map(
        (run, at): Edit => ({
          list: 'runs',
          id: run.id,
          base,
          value: { ...run, leads: withCable(run, line, (cables[at] as Cable).id) },
        }),
      ),
      {
        list: 'orderLines',
        id: line.id,
        base,
        value: { ...line, tagged: [...(line.tagged ?? []), ...cables.map(({ id }) => id)] },
      },
    ],
  }
}

/** The runs that a line was bought for and that still wait for it, in its order. */
const runsToLay = (plan: Plan, line: OrderLine): Run[] =>
  (line.runs ?? []).flatMap((id) => {
    const run = byId(plan.runs).get(id)
    return run?.leads.some((lead) => isOfLine(lead, line)) ? [run] : []
  })

const isOfLine = (lead: RunLead, { kind, length }: OrderLine): boolean =>
  'kind' in lead && lead.kind === kind && lead.length === length

/** The leads of a run with the first that waits for a line replaced by the cable that came. */
function withCable({ leads }: Run, line: OrderLine, cable: string): RunLead[] {
  const at = leads.findIndex((lead) => isOfLine(lead, line))
  return leads.map((lead, place) => (place === at ? { cable, reversed: lead.reversed } : lead))
}

function cableOf(kind: CableKind, id: string, tag: string, length: number): Cable {
  const { ends, oneWay, construction, feed = 'bus', feedEnd, pair, passesBack, passesOn } = kind
  return {
    id,
    tag,
    kind: kind.id,
    ends,
    oneWay,
    length,
    construction,
    feed,
    ...(feedEnd === undefined ? {} : { feedEnd }),
    ...(pair === undefined ? {} : { pair }),
    ...(passesBack === undefined ? {} : { passesBack }),
    ...(passesOn === undefined ? {} : { passesOn }),
    standing: 'drawer',
  }
}

/** Sends some of what came back. Cables that were tagged are retired, and their runs wait for another lead. */
export function sendBack(
  plan: Plan,
  base: LogPosition,
  line: OrderLine,
  { on, count, cables, why }: { on: string; count: number; cables: readonly string[]; why?: string },
): ChangeToMake {
  const gone = new Set(cables)
  const runs = plan.runs.filter(({ leads }) => leads.some((lead) => 'cable' in lead && gone.has(lead.cable)))
  const back = { on, count, ...(cables.length > 0 ? { cables: [...cables] } : {}), ...(why ? { why } : {}) }
  return {
    what: { name: 'send back', about: [`${count} x ${nameOf(plan, line)}`] },
    edits: [
      ...runs.map(
        (run): Edit => ({
          list: 'runs',
          id: run.id,
          base,
          value: { ...run, leads: run.leads.filter((lead) => !('cable' in lead && gone.has(lead.cable))) },
        }),
      ),
      ...plan.cables.flatMap((cable): Edit[] =>
        gone.has(cable.id) ? [{ list: 'cables', id: cable.id, base, value: { ...cable, standing: 'retired' } }] : [],
      ),
      { list: 'orderLines', id: line.id, base, value: { ...line, back: [...(line.back ?? []), back] } },
    ],
  }
}

const nameOf = (plan: Plan, { kind }: OrderLine): string => byId(plan.kinds).get(kind)?.name ?? kind

/** How many of a line are here and may still go back. */
export const mayGoBack = (line: OrderLine): number => countsOf(line).here - countsOf(line).back
