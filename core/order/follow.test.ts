import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { demo as whole } from '../../tests/support/demo-plan'
import { cases } from '../../tests/support/laws'
import { took } from '../../tests/support/made-up-walk'
import { applyChange } from '../change/apply'
import type { Copy } from '../change/change'
import {
  putOffers,
  removeOffer,
  removeSupplier,
  saveSupplier,
  sendBack,
  sendOrder,
  tagArrived,
  takeArrival,
  takeOrder,
} from '../change/changes/orders'
import { copyOf } from '../change/copy'
import { assessAnew } from '../checks/assess'
import { observationSchema } from '../observe/observation'
import { byId } from '../plan/lookup'
import type { Plan } from '../plan/plan'
import { readPlanText } from '../plan/read'
import { indexPlan } from '../plan/site-index'
import { planText } from '../plan/write'
import { countsOf, waitingToTag } from '../vocabulary/order'
import { duesOf, lastReturnDay, lineState, linesWaiting, nearness, runsOnOrder } from './follow'

/** The demo before anything was ordered. */
const demo: Plan = { ...whole, suppliers: [], offers: [], orders: [], orderLines: [] }
const shop = { id: 'shop', name: 'Pier supply', delivery: 6, leadDays: 3, returnDays: 14 }
const kind = demo.kinds[0]
const stock = kind?.stock[0]
if (!kind || !stock) throw new Error('the demo has kinds with prices')
const runs = demo.runs.slice(0, 3).map(({ id }) => id)

/** A demo whose first three runs wait for a lead that is ordered. */
function ordered(): { copy: Copy; line: string; order: string } {
  const shopped = took(copyOf(demo), saveSupplier(shop, null))
  const lead = { kind: kind?.id ?? '', length: stock?.length ?? 0, reversed: false }
  const planned = took(
    shopped,
    takeOrder(shopped.plan, shopped.place, {
      runs: runs.map((run) => ({ run, leads: [lead] })),
      lines: [{ supplier: 'shop', kind: lead.kind, length: lead.length, count: 5, price: 9 }],
    }),
  )
  const [order] = planned.plan.orders
  const [line] = planned.plan.orderLines
  if (!order || !line) throw new Error('an order is planned')
  return {
    copy: took(
      planned,
      sendOrder(planned.plan, planned.place, order, { on: '2026-11-20', promised: new Map([[line.id, '2026-11-23']]) }),
    ),
    line: line.id,
    order: order.id,
  }
}
let written = 0
const witness = {
  at: '2026-11-23T09:00:00.000Z',
  by: 'tester',
  newId: () => {
    written += 1
    return `o-${written}`
  },
}
const lineOf = (plan: Plan, id: string) => {
  const line = byId(plan.orderLines).get(id)
  if (!line) throw new Error('no such line')
  return line
}

describe('an order is followed', () => {
  it('from the plan to the drawer, with the runs that wait for it laid', () => {
    const { copy, line, order } = ordered()
    expect(lineOf(copy.plan, line)).toMatchObject({ count: 5, runs })
    expect(lineState(lineOf(copy.plan, line), { ordered: '2026-11-20' })).toBe('ordered')
    expect(duesOf(indexPlan(copy.plan))).toMatchObject([{ what: 'arrives', on: '2026-11-23' }])
    const half = took(copy, takeArrival(copy.plan, copy.place, lineOf(copy.plan, line), { on: '2026-11-24', count: 2 }))
    expect(lineState(lineOf(half.plan, line), byId(half.plan.orders).get(order) ?? {})).toBe('partly here')
    expect(lastReturnDay(half.plan, lineOf(half.plan, line))).toBe('2026-12-08')
    const tagged = took(
      half,
      tagArrived(half.plan, half.place, lineOf(half.plan, line), { lengths: [1.9, null] }, witness),
    )
    const fresh = tagged.plan.cables.slice(-2)
    expect(fresh.map(({ length }) => length)).toEqual([1.9, stock.length])
    // what came is laid, and the third still waits
    expect([...runsOnOrder(half.plan)]).toEqual(runs)
    expect([...runsOnOrder(tagged.plan)]).toEqual(runs.slice(2))
    expect(runs.map((id) => byId(tagged.plan.runs).get(id)?.leads)).toMatchObject([
      [{ cable: fresh[0]?.id }],
      [{ cable: fresh[1]?.id }],
      [{ kind: kind.id }],
    ])
    // nobody has seen them hold anything, so their last day is kept
    const due = duesOf(indexPlan(tagged.plan)).find(({ what }) => what === 'last day to send back')
    expect(due).toMatchObject({ on: '2026-12-08', unproved: 2 })
    // one look that came up is enough to say that somebody saw it hold, and of the other nobody did
    const looked = observationSchema.parse({
      id: 'looked',
      at: '2026-11-25T09:00:00.000Z',
      subject: { cable: fresh[0]?.id },
      kind: 'trial',
      basis: 'soaked',
      tried: 'usb2',
      cameUp: 'usb2',
      seconds: 60,
    })
    const after = { ...tagged.plan, observations: [...tagged.plan.observations, looked] }
    expect(duesOf(indexPlan(after)).find(({ what }) => what === 'last day to send back')).toMatchObject({ unproved: 1 })
    expect(due && [nearness(due, '2026-12-05'), nearness(due, '2026-12-06'), nearness(due, '2026-12-09')]).toEqual([
      'later',
      'near',
      'over',
    ])
    const back = took(
      tagged,
      sendBack(tagged.plan, tagged.place, lineOf(tagged.plan, line), {
        on: '2026-11-26',
        count: 1,
        cables: [fresh[0]?.id ?? ''],
        why: 'it is a charge lead',
      }),
    )
    expect(byId(back.plan.cables).get(fresh[0]?.id ?? '')?.standing).toBe('retired')
    expect(byId(back.plan.runs).get(runs[0] ?? '')?.leads).toEqual([])
    expect(countsOf(lineOf(back.plan, line))).toEqual({ here: 2, tagged: 2, back: 1 })
  })
  it('what is planned again replaces what was planned and not sent off', () => {
    const { copy } = ordered()
    const again = (now: Copy): Copy =>
      took(
        now,
        takeOrder(now.plan, now.place, {
          runs: [],
          lines: [{ supplier: null, kind: kind.id, length: stock.length, count: 1, price: 4 }],
        }),
      )
    const twice = again(again(copy))
    expect(twice.plan.orders.map(({ ordered: sent }) => sent)).toEqual(['2026-11-20', undefined])
    expect(twice.plan.orderLines).toHaveLength(2)
  })
  it('a supplier with an open order cannot be removed, and says why', () => {
    const { copy } = ordered()
    const outcome = applyChange(copy, { edits: removeSupplier(copy.plan, copy.place, shop).edits })
    expect(outcome).toMatchObject({ outcome: 'refused' })
  })
})

it('whatever comes and goes back, counts stay true and the plan reads back as it was', () => {
  const step = fc.record({
    sort: fc.nat(2),
    count: fc.integer({ min: 1, max: 3 }),
    day: fc.integer({ min: 21, max: 28 }),
  })
  fc.assert(
    fc.property(fc.array(step, { maxLength: 8 }), (steps) => {
      const start = ordered()
      let { copy } = start
      for (const { sort, count, day } of steps) {
        const line = lineOf(copy.plan, start.line)
        const on = `2026-11-${day}`
        const { here, back } = countsOf(line)
        const make =
          sort === 0
            ? takeArrival(copy.plan, copy.place, line, { on, count })
            : sort === 1
              ? tagArrived(copy.plan, copy.place, line, {}, witness)
              : sendBack(copy.plan, copy.place, line, { on, count, cables: [] })
        const applied = applyChange(copy, { edits: make.edits })
        const fits = sort === 0 ? here + count <= 5 : sort === 1 || count <= here - back
        if (applied.outcome !== 'applied') {
          // only what cannot be is refused
          expect(fits && !(sort === 2 && count > waitingToTag(line))).toBe(false)
          continue
        }
        const undone = applyChange(applied.copy, { edits: applied.inverse, undoes: 'x' })
        expect(undone.outcome === 'applied' && undone.copy.plan).toEqual(copy.plan)
        copy = applied.copy
        const after = countsOf(lineOf(copy.plan, start.line))
        expect(after.here).toBeLessThanOrEqual(5)
        expect(after.tagged + waitingToTag(lineOf(copy.plan, start.line))).toBeLessThanOrEqual(after.here)
        expect(linesWaiting(indexPlan(copy.plan))).toBeLessThanOrEqual(1)
      }
      const read = readPlanText(planText(copy.plan))
      expect(read.ok && read.plan).toEqual(copy.plan)
      expect(assessAnew(copy.plan).assessment.runs).toHaveLength(copy.plan.runs.length)
    }),
    { numRuns: cases(30) },
  )
})

describe('prices of suppliers', () => {
  const shopped = took(copyOf(demo), saveSupplier(shop, null))
  it('the catalogue has the least of them, and loses none when one is removed', () => {
    const second = took(shopped, saveSupplier({ id: 'other', name: 'Other' }, null))
    const offer = (supplier: string, price: number) => ({ supplier, kind: kind.id, length: stock.length, price })
    const both = took(second, putOffers(second.plan, second.place, [offer('shop', 7), offer('other', 5)]))
    const priceIn = (plan: Plan) =>
      byId(plan.kinds)
        .get(kind.id)
        ?.stock.find(({ length }) => length === stock.length)?.price
    expect(priceIn(both.plan)).toBe(5)
    const cheap = both.plan.offers.find(({ supplier }) => supplier === 'other')
    if (!cheap) throw new Error('it is offered')
    const one = took(both, removeOffer(both.plan, both.place, cheap))
    expect(priceIn(one.plan)).toBe(7)
    // noted again, it is the same offer
    const again = took(one, putOffers(one.plan, one.place, [offer('shop', 8)]))
    expect(again.plan.offers).toHaveLength(1)
    expect(priceIn(again.plan)).toBe(8)
  })
})
