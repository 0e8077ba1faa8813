import type { Unwritten } from '../../observe/observation'
import { nextRunTag } from '../../plan/direct-needs'
import { freeIds, slugOf } from '../../plan/free-id'
import { byId } from '../../plan/lookup'
import { nextTag } from '../../plan/next-tag'
import type { Plan } from '../../plan/plan'
import { cableToBuy } from '../../plan/site-index'
import type { CableGrade } from '../../standards/grades'
import type { Cable, CableKind } from '../../vocabulary/cable'
import {
  countsOf,
  MOST_PRICES,
  type Offer,
  type Order,
  type OrderLine,
  type Supplier,
  waitingToTag,
} from '../../vocabulary/order'
import { leadKey, type Run, type RunLead } from '../../vocabulary/run'
import type { ChangeToMake, Edit, LogPosition } from '../change'
import { observed, type Witness } from './observations'

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

/**
 * Puts offers beside those there are. Of one supplier, kind and length what is said now replaces what was said, and a price that changed stays among the
 * earlier ones. The catalogue keeps the least price of each length.
 */
export function putOffers(plan: Plan, base: LogPosition, offers: readonly Omit<Offer, 'id'>[]): ChangeToMake {
  const keyOf = ({ supplier, kind, length }: Omit<Offer, 'id'>): string => `${supplier} ${kind} ${length}`
  const known = new Map(plan.offers.map((offer) => [keyOf(offer), offer]))
  const idOf = freeIds(plan.offers.map(({ id }) => id))
  // the last of several for one thing
  const fresh = [...new Map(offers.map((offer) => [keyOf(offer), offer])).values()].map((offer): Offer => {
    const before = known.get(keyOf(offer))
    if (!before) return { ...offer, id: idOf(slugOf(`${offer.supplier} ${offer.kind} ${offer.length}`, 'offer')) }
    return { ...before, ...offer, ...earlierPrices(before, offer.price) }
  })
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

const earlierPrices = ({ price, seen, was = [] }: Offer, now: number): Pick<Offer, 'was'> =>
  price === now ? {} : { was: [...was, { price, ...(seen === undefined ? {} : { seen }) }].slice(-MOST_PRICES) }

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

/** What was decided: what lies in which run, what else is changed for it, and so many of each article from each supplier. */
export type DecidedOrder = {
  runs: readonly { run: string; leads: readonly RunLead[] }[]
  /** What is set up beside the leads: extender ends, a hub, a charger, and the runs to them. */
  alters?: readonly Edit[] | undefined
  lines: readonly DecidedLine[]
}
export type DecidedLine = {
  supplier: string | null
  kind: string
  length: number
  count: number
  price: number
  /** Bought to try, with the day to decide where it is known; or one that waits for what comes of trying its kind. */
  part?: 'try' | 'after'
  decide?: string
}

/**
 * Takes what was decided: the runs get their leads, and an order is planned for each supplier. Orders that were planned and not sent off are planned anew.
 */
export function takeOrder(plan: Plan, base: LogPosition, { runs, lines, alters = [] }: DecidedOrder): ChangeToMake {
  const known = byId(plan.runs)
  const planned = plan.orders.filter(({ ordered }) => ordered === undefined)
  const gone = new Set(planned.map(({ id }) => id))
  const set = withFreeTags(plan, alters)
  const altered = new Set(set.map(({ list, id }) => `${list}/${id}`))
  const wanting = [
    ...runs.filter(({ run }) => !altered.has(`runs/${run}`)),
    ...set.flatMap(({ list, id, value }) => (list === 'runs' ? leadsOfRun(id, value) : [])),
  ]
  return {
    what: { name: 'plan order', about: runs.map(({ run }) => known.get(run)?.tag ?? run) },
    edits: [
      ...set,
      ...runs.flatMap(({ run, leads }): Edit[] => {
        const now = known.get(run)
        return now && !altered.has(`runs/${run}`) && !sameLeads(now, leads)
          ? [{ list: 'runs', id: run, base, value: { ...now, leads: [...leads] } }]
          : []
      }),
      ...plan.orderLines.flatMap(({ id, order }): Edit[] =>
        gone.has(order) ? [{ list: 'orderLines', id, base, value: null }] : [],
      ),
      ...planned.map(({ id }): Edit => ({ list: 'orders', id, base, value: null })),
      ...ordersOf(plan, wanting, lines),
    ],
  }
}

/**
 * New orders with their lines: one for each supplier, and apart from it what is bought to try and what waits for that. Each run that waits for an article is on
 * one line of it.
 */
function ordersOf(plan: Plan, wanting: readonly WithLeads[], lines: readonly DecidedLine[]): Edit[] {
  const runsOf = new Map<string, string[]>()
  for (const { run, leads } of wanting)
    for (const lead of leads) if ('kind' in lead) runsOf.set(leadKey(lead), [...(runsOf.get(leadKey(lead)) ?? []), run])
  const orderId = freeIds(plan.orders.map(({ id }) => id))
  const lineId = freeIds(plan.orderLines.map(({ id }) => id))
  const made = lines.map((line) => ({
    ...line,
    id: lineId(slugOf(`${line.supplier ?? 'to-buy'} ${line.kind}`, 'line')),
  }))
  const tried = made.filter(({ part }) => part === 'try')
  return ([undefined, 'try', 'after'] as const).flatMap((part) => {
    const own = made.filter((line) => line.part === part)
    return [...new Set(own.map(({ supplier }) => supplier))].flatMap((supplier): Edit[] => {
      const mine = own.filter((line) => line.supplier === supplier)
      const name = orderName(plan, supplier, part)
      const after = part === 'after' ? tried.filter(({ kind }) => mine.some((line) => line.kind === kind)) : []
      const order: Order = {
        id: orderId(slugOf(name, 'order')),
        name,
        ...(supplier === null ? {} : { supplier }),
        ...(after.length > 0 ? { after: after.map(({ id }) => id) } : {}),
      }
      return [
        { list: 'orders', id: order.id, base: null, value: order },
        ...mine.map(({ id, kind, length, count, price, decide }): Edit => {
          // each run is on one line, even where two suppliers share an article
          const runs = runsOf.get(leadKey({ kind, length, reversed: false }))?.splice(0, count) ?? []
          const value = { id, order: order.id, kind, length, count, price, runs, ...(decide ? { decide } : {}) }
          return { list: 'orderLines', id, base: null, value }
        }),
      ]
    })
  })
}

function orderName(plan: Plan, supplier: string | null, part: DecidedLine['part']): string {
  const from = supplier === null ? null : (byId(plan.suppliers).get(supplier)?.name ?? supplier)
  const what = part === 'try' ? 'To try' : part === 'after' ? 'After the trial' : from === null ? 'To buy' : 'Order'
  return (from === null ? what : `${what}${part === undefined ? ' at' : ', from'} ${from}`).slice(0, 120)
}

type WithLeads = DecidedOrder['runs'][number]

const leadsOfRun = (run: string, value: Edit['value']): WithLeads[] =>
  value ? [{ run, leads: (value as Run).leads }] : []

/** What is set up for several runs at once, each new run with a tag of its own. */
function withFreeTags(plan: Plan, alters: readonly Edit[]): Edit[] {
  let runs = plan.runs
  return alters.map((edit): Edit => {
    if (edit.list !== 'runs' || edit.base !== null || edit.value === null) return edit
    const value: Run = { ...(edit.value as Run), tag: nextRunTag({ ...plan, runs }) }
    runs = [...runs, value]
    return { ...edit, value }
  })
}

const sameLeads = ({ leads }: Run, others: readonly RunLead[]): boolean =>
  JSON.stringify(leads) === JSON.stringify(others)

/** Notes that an order was sent off, with the day that each line is promised for, by its id. */
export const sendOrder = (
  plan: Plan,
  base: LogPosition,
  order: Order,
  { on, promised }: { on: string; promised: ReadonlyMap<string, string> },
): ChangeToMake => ({
  what: { name: 'send order', about: [order.name] },
  edits: [
    { list: 'orders', id: order.id, base, value: { ...order, ordered: on } },
    ...plan.orderLines.flatMap((line): Edit[] => {
      const day = promised.get(line.id)
      return line.order === order.id && day !== undefined
        ? [{ list: 'orderLines', id: line.id, base, value: { ...line, promised: day } }]
        : []
    }),
  ],
})

/** Removes an order with its lines; what waited for one of these waits no more. Cables that came of it stay. */
export function removeOrder(plan: Plan, base: LogPosition, order: Order): ChangeToMake {
  const lines = plan.orderLines.filter((line) => line.order === order.id)
  const gone = new Set(lines.map(({ id }) => id))
  return {
    what: { name: 'remove order', about: [order.name] },
    edits: [
      ...plan.orders.flatMap((each): Edit[] => {
        if (each.id === order.id || !each.after?.some((id) => gone.has(id))) return []
        const { after, ...rest } = each
        const left = after.filter((id) => !gone.has(id))
        return [{ list: 'orders', id: each.id, base, value: { ...rest, ...(left.length > 0 ? { after: left } : {}) } }]
      }),
      ...lines.map(({ id }): Edit => ({ list: 'orderLines', id, base, value: null })),
      { list: 'orders', id: order.id, base, value: null },
    ],
  }
}

/** Notes what came of a line. `decide` is the day to decide on what is bought to try, as it follows from the delivery. */
export const takeArrival = (
  plan: Plan,
  base: LogPosition,
  line: OrderLine,
  arrival: { on: string; count: number },
  decide: string | null = null,
): ChangeToMake => ({
  what: { name: 'take arrival', about: [`${arrival.count} x ${nameOf(plan, line)}`] },
  edits: [
    {
      list: 'orderLines',
      id: line.id,
      base,
      value: { ...line, arrived: [...(line.arrived ?? []), arrival], ...(decide === null ? {} : { decide }) },
    },
  ],
})

/** Notes until when it is decided what of a line is kept; null: it is bought for good. */
export function decideBy(plan: Plan, base: LogPosition, line: OrderLine, on: string | null): ChangeToMake {
  const { decide: _, ...rest } = line
  return {
    what: { name: 'try line', about: [nameOf(plan, line)] },
    edits: [{ list: 'orderLines', id: line.id, base, value: on === null ? rest : { ...rest, decide: on } }],
  }
}

/** What somebody found when a delivery was unpacked. */
export type Unpacked = {
  /** Lengths as they were taped, in the order of the tags; the listing's where nobody taped. */
  lengths?: readonly (number | null)[]
  /** The mark printed on them, null where there is none; left out: nobody looked. */
  mark?: CableGrade | null
  /** What is not as the listing has it: other ends, something missing from the box. */
  differs?: string
}

/** Makes cables of what came, with the next free tags, lays them in the runs they were bought for, and writes down what was found. */
export function tagArrived(
  plan: Plan,
  base: LogPosition,
  line: OrderLine,
  { lengths = [], mark, differs }: Unpacked,
  witness: Witness,
): ChangeToMake {
  const kind = byId(plan.kinds).get(line.kind)
  const count = kind ? waitingToTag(line) : 0
  const idOf = freeIds(plan.cables.map(({ id }) => id))
  const tags = plan.cables.map(({ tag }) => tag)
  const cables = Array.from({ length: count }, (_, at): Cable => {
    const tag = nextTag(tags)
    tags.push(tag)
    const made = cableToBuy(kind as CableKind, lengths[at] ?? line.length)
    return {
      ...made,
      id: idOf(slugOf(tag, 'cable')),
      tag,
      ...(differs ? { note: `${NOT_AS_LISTED}${differs}` } : {}),
    }
  })
  const laid = runsToLay(plan, line).slice(0, cables.length)
  const seen: Unwritten[] = mark === undefined ? [] : [{ kind: 'statement', basis: 'claimed', grade: mark }]
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
      ...cables
        .flatMap(({ id }) => observed(seen, { cable: id }, witness))
        .map((value): Edit => ({ list: 'observations', id: value.id, base: null, value })),
      {
        list: 'orderLines',
        id: line.id,
        base,
        value: { ...line, tagged: [...(line.tagged ?? []), ...cables.map(({ id }) => id)] },
      },
    ],
  }
}

/** How the note of a cable begins that came other than its listing has it. */
export const NOT_AS_LISTED = 'Not as listed: '

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

/** What goes back, and whether the supplier sends as many in its place. */
export type SentBack = { on: string; count: number; cables: readonly string[]; why?: string; replaced?: true }

/** Sends some of what came back. Cables that were tagged are retired, and their runs wait for another lead. */
export function sendBack(
  plan: Plan,
  base: LogPosition,
  line: OrderLine,
  { on, count, cables, why, replaced }: SentBack,
): ChangeToMake {
  const gone = new Set(cables)
  const runs = plan.runs.filter(({ leads }) => leads.some((lead) => 'cable' in lead && gone.has(lead.cable)))
  const back = {
    on,
    count,
    ...(cables.length > 0 ? { cables: [...cables] } : {}),
    ...(why ? { why } : {}),
    ...(replaced ? { replaced } : {}),
  }
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
