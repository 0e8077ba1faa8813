import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { demo } from '../../tests/support/demo-plan'
import { cases } from '../../tests/support/laws'
import { applyChange } from '../change/apply'
import { putOffers } from '../change/changes/orders'
import { copyOf } from '../change/copy'
import { PORT_SITES } from '../vocabulary/device'
import type { Offer } from '../vocabulary/order'
import { priceListTable, readPriceList } from './price-list'

const supplier = demo.suppliers[0]?.id ?? ''
const day = '2026-11-29'
const read = (table: readonly (readonly string[])[], plan = demo) => {
  const [headers = [], ...rows] = table
  return readPriceList({ headers, rows }, plan, supplier, day)
}

it('any price list reads back from the table that was written of it', () => {
  const offer = fc.record(
    {
      kind: fc.constantFrom(...demo.kinds.map(({ id }) => id)),
      length: fc.integer({ min: 1, max: 200 }).map((tenths) => tenths / 10),
      price: fc.integer({ min: 0, max: 100_000 }).map((cents) => cents / 100),
      number: fc.stringMatching(/^[A-Z0-9][A-Z0-9-]{0,20}$/),
      words: fc.stringMatching(/^[a-z]{1,12}( [a-z]{1,12})?$/),
      available: fc.nat(9999),
      leadDays: fc.nat(365),
      returnDays: fc.nat(365),
      excludes: fc.subarray([...PORT_SITES], { minLength: 1 }),
    },
    { requiredKeys: ['kind', 'length', 'price'] },
  )
  fc.assert(
    fc.property(
      fc.uniqueArray(offer, { maxLength: 12, selector: ({ kind, length }) => `${kind} ${length}` }),
      (all) => {
        // lengths of the catalogue stay what they are there, so none here is within a hair of one
        const offers = all.map((each, at): Offer => ({ ...each, supplier, id: `o${at}`, seen: day }))
        const { offers: back, bad } = read(priceListTable({ kinds: demo.kinds, offers }, supplier))
        expect(bad).toEqual([])
        expect(back).toEqual(offers.map(({ id: _, ...rest }) => rest))
      },
    ),
    { numRuns: cases(100) },
  )
})

describe('a row that cannot be right says so and is left out', () => {
  const name = demo.kinds[0]?.name ?? ''
  it.each([
    [['no such kind', '2 m', '5'], /not in the catalogue/],
    [[name, 'long', '5'], /length/],
    [[name, '2 m', 'cheap'], /not a number/],
    [[name, '2 m', ''], /price/],
    [[name, '2 m', '1000001'], /price/],
    [[name, '2 m', '-1'], /not a number/],
  ])('%j', (row, problem) => {
    const { offers, bad } = read([['kind', 'length', 'price'], row])
    expect(offers).toEqual([])
    expect(bad[0]?.problems.join(' ')).toMatch(problem)
    expect(bad[0]?.line).toBe(2)
  })
  it('a table without what is needed names the columns', () => {
    expect(
      read([
        ['kind', 'length'],
        ['x', '2 m'],
      ]).bad[0]?.problems,
    ).toEqual(['the table has no column "price"'])
  })
})

it('a kind is known by the number that this supplier gave it before', () => {
  const kind = demo.kinds[1]
  if (!kind) throw new Error('the demo has kinds')
  const before = { id: 'n', supplier, kind: kind.id, length: 2, price: 9, number: 'QX-7' }
  const { offers } = read(
    [
      ['number', 'length', 'price'],
      ['qx-7', '3 m', '11'],
    ],
    { ...demo, offers: [before] },
  )
  expect(offers).toMatchObject([{ kind: kind.id, length: 3, price: 11 }])
})

it('a price that changes leaves the one before, with its day; the same again leaves none', () => {
  const kind = demo.kinds[0]?.id ?? ''
  let copy = copyOf({ ...demo, offers: [] })
  for (const [price, seen] of [
    [9, '2026-11-01'],
    [9, '2026-11-02'],
    [8, '2026-11-03'],
    [10, '2026-11-04'],
  ] as const) {
    const made = putOffers(copy.plan, copy.place, [{ supplier, kind, length: 2, price, seen }])
    const applied = applyChange(copy, { edits: made.edits })
    if (applied.outcome !== 'applied') throw new Error(JSON.stringify(applied))
    copy = applied.copy
  }
  expect(copy.plan.offers).toMatchObject([
    {
      price: 10,
      seen: '2026-11-04',
      was: [
        { price: 9, seen: '2026-11-02' },
        { price: 8, seen: '2026-11-03' },
      ],
    },
  ])
})
