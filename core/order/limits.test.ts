import { expect, it } from 'vitest'
import { demo } from '../../tests/support/demo-plan'
import type { Order, OrderLine, Supplier } from '../vocabulary/order'
import type { Source } from './articles'
import type { Choice } from './choices'
import { costOf, type Market, type OrderModel } from './model'
import { orderSheet, orderText } from './sheet'
import { readOrder } from './solution'
import { ORDER_PLANS, usualWishes, wishesOf } from './wishes'

const LIMIT = 40
/** An order of two at a price each, from a supplier that sends it free from 40 on. */
function twoAt(price: number) {
  const supplier = { id: 'pier', name: 'Pier', delivery: 6, freeFrom: LIMIT } as Supplier
  const source = { supplier: 'pier', price, available: null, leadDays: 2 } as Source
  const market = {
    articles: new Map([['a', { sources: [source] }]]),
    suppliers: [supplier],
  } as unknown as Market
  const model = {
    model: { columns: [{ cost: price, most: 9, whole: true }], rows: [] },
    meanings: [{ is: 'bought', article: 'a', source, at: 0 }],
    unserved: [],
  } as unknown as OrderModel
  const kind = demo.kinds[0]
  if (!kind) throw new Error('the demo has kinds')
  const order = { id: 'o', name: 'Order', supplier: 'pier' } as Order
  const line = { id: 'l', order: 'o', kind: kind.id, length: 2, count: 2, price } as OrderLine
  const plan = { ...demo, suppliers: [supplier], orders: [order], orderLines: [line] }
  return { plan: readOrder(model, [2], market, null), sheet: orderText(orderSheet(plan, order, 'm')) }
}

it('delivery is free at exactly its limit, and not a cent below it: in the plan as on the paper', () => {
  const at = twoAt(LIMIT / 2)
  expect(at.plan.deliveries.get('pier')).toBe(0)
  expect(at.plan.cost).toBe(LIMIT)
  expect(at.sheet).not.toContain('Delivery')
  expect(at.sheet).toContain('In all: 40.00')
  const below = twoAt(LIMIT / 2 - 0.01)
  expect(below.plan.deliveries.get('pier')).toBe(6)
  expect(below.plan.cost).toBeCloseTo(LIMIT - 0.02 + 6, 9)
  expect(below.sheet).toContain('Delivery: 6.00')
  expect(below.sheet).toContain('In all: 45.98')
})

it('the surest plan takes any price before a risk of any sort, the cheapest the other way round, and each wish is weighed by some plan', () => {
  const choice = (risks: Choice['risks'], price: number): Choice =>
    ({ grade: 'clear', leads: [{}], risks, setUp: { price } }) as unknown as Choice
  for (const risk of Object.keys(usualWishes.perRisk) as (keyof typeof usualWishes.perRisk)[]) {
    const dear = choice([], 5000)
    const doubtful = choice([risk], 0)
    const surest = wishesOf('surest', usualWishes)
    expect(costOf(dear, surest), risk).toBeLessThan(costOf(doubtful, surest))
    const cheapest = wishesOf('cheapest', usualWishes)
    expect(costOf(choice([], 1), cheapest), risk).toBeGreaterThan(costOf(doubtful, cheapest))
  }
  const tight = (wishes: typeof usualWishes) => costOf({ grade: 'tight', leads: [{}, {}], risks: [] } as never, wishes)
  const told = ORDER_PLANS.map((name) => tight(wishesOf(name, usualWishes)))
  expect(told).toEqual([
    usualWishes.perTight + usualWishes.perJoint,
    expect.closeTo(0.002, 9),
    usualWishes.perTight + usualWishes.perJoint,
    10_000 + usualWishes.perJoint * 10,
  ])
})
