import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { demo } from '../../tests/support/demo-plan'
import { assess, assessAnew, walkNeeds } from '../checks/assess'
import { severity } from '../checks/finding'
import { put } from '../plan/put'
import { indexPlan } from '../plan/site-index'
import { leadReach, leadShape } from '../standards/reach'
import type { Policy } from '../vocabulary/policy'
import type { Run } from '../vocabulary/run'
import { assortment } from './assortment'
import { buysFirst, commonOffersOf, offersOf } from './offers'
import { rankCables } from './rank'
import { covers, reachDots, spotsOf } from './reach-chart'
import { cheapestClear, together } from './together'

const index = indexPlan(demo)
const walks = walkNeeds(index)
const runOf = (id: string) => index.runs.get(id) as Run
const crossings = (id: string) => walks.crossings.get(id) ?? []

describe('what could be bought for a run', () => {
  it('is every kind that plugs in, at the shortest length that spans the way with slack, judged as if it lay there', () => {
    const offers = offersOf(index, runOf('r-09'), crossings('r-09'))
    expect(offers.map(({ kind, length }) => [kind.id, length])).toEqual([
      ['kind-c-20', 2],
      ['kind-c-40', 1.2],
      ['kind-c-40-active', 2],
      ['kind-charge', 2],
    ])
    for (const { kind, length, verdict } of offers) {
      const laid = put(demo, 'runs', { ...runOf('r-09'), leads: [{ kind: kind.id, length, reversed: false }] })
      expect(verdict).toEqual(assess(laid).runs.find(({ id }) => id === 'r-09'))
    }
  })
  it('of what is commonly sold has no price, and leaves out what the catalogue has', () => {
    const offers = commonOffersOf(index, runOf('r-04'), crossings('r-04'))
    expect(offers.length).toBeGreaterThan(2)
    expect(offers.every(({ price, listed }) => price === null && !listed)).toBe(true)
    expect(offers.some(({ verdict }) => verdict.grade === 'clear')).toBe(true)
  })
})

describe('drawer and catalogue as one list', () => {
  const listed = (buying: Policy['buying']) =>
    together(rankCables(index, runOf('r-09'), crossings('r-09')), offersOf(index, runOf('r-09'), crossings('r-09')), {
      ...demo.policy,
      buying,
    })
  it.each(['cheapest', 'dearest'] as const)(
    'what does it before what just does, what is there before what is bought: %s',
    (buying) => {
      const choices = listed(buying)
      const grades = choices.map(({ verdict }) => severity[verdict.grade])
      expect(grades).toEqual([...grades].sort())
      for (const grade of new Set(grades)) {
        const own = choices.filter(({ verdict }) => severity[verdict.grade] === grade)
        const from = own.map((choice) => choice.from)
        expect(from).toEqual([...from].sort())
        const shop = own.flatMap((choice) => (choice.from === 'shop' ? choice : []))
        // what failed everywhere it was tried comes last, whatever it costs
        const records = shop.map(({ record }) => record)
        expect(records).toEqual(records.toSorted())
        for (const record of new Set(records)) {
          const prices = shop.flatMap((choice) => (choice.record === record ? (choice.price ?? []) : []))
          const wanted = prices.toSorted((one, other) => (buying === 'cheapest' ? one - other : other - one))
          expect(prices).toEqual(wanted)
        }
      }
      expect(choices.length).toBe(listed('cheapest').length)
      // the least money is the least money, whatever is offered first
      expect(cheapestClear(choices)).toMatchObject({ from: 'drawer' })
      expect(cheapestClear(choices.filter(({ from }) => from === 'shop'))).toMatchObject({
        price: Math.min(
          ...choices.flatMap((choice) =>
            choice.from === 'shop' && choice.verdict.grade === 'clear' ? (choice.price ?? []) : [],
          ),
        ),
      })
    },
  )
  it('what has no price comes last, however the site buys', () => {
    const prices = [{ price: null }, { price: 3 }, { price: 0 }, { price: 8 }]
    expect(prices.toSorted(buysFirst({ ...demo.policy, buying: 'cheapest' })).map(({ price }) => price)).toEqual([
      0,
      3,
      8,
      null,
    ])
    expect(prices.toSorted(buysFirst({ ...demo.policy, buying: 'dearest' })).map(({ price }) => price)).toEqual([
      8,
      3,
      0,
      null,
    ])
  })
})

describe('what is commonly sold', () => {
  it('carries something at each length it is sold in, by the tables of reach', () => {
    for (const { kind, lengths } of assortment) {
      const reach = leadReach(kind.grade, kind.construction, leadShape(kind.ends), kind.feed ? 'fed' : 'unfed')
      const furthest = Math.max(...[...reach.data, ...reach.displayport, ...reach.hdmi].map((row) => row.reach))
      expect(Math.max(...lengths), kind.name).toBeLessThanOrEqual(furthest)
      expect([...lengths].sort((one, other) => one - other)).toEqual(lengths)
    }
    expect(new Set(assortment.map(({ kind }) => kind.id)).size).toBe(assortment.length)
  })
})

describe('the reach chart', () => {
  it('covers what the tables say: passive type-C 40 Gb/s to 1 m, optical to 50 m, category cable 10 Gb/s to 100 m', () => {
    const areas = new Map(covers().map(({ make, corners }) => [make, corners]))
    const most = (make: 'passive' | 'active' | 'optical' | 'category cable', length: number): number =>
      Math.max(0, ...(areas.get(make) ?? []).filter((corner) => corner.length >= length).map(({ rate }) => rate))
    expect(most('passive', 1)).toBeGreaterThanOrEqual(40e9)
    expect(most('optical', 50)).toBeGreaterThanOrEqual(40e9)
    expect(most('category cable', 100)).toBe(10e9)
    expect(most('passive', 16)).toBe(0)
    // every corner says something the others do not
    for (const corners of areas.values())
      for (const [at, corner] of corners.entries()) {
        const next = corners[at + 1]
        if (next) expect(next.length < corner.length && next.rate > corner.rate).toBe(true)
      }
  })
  it('keeps every dot on a spot, with those it cannot be told from and no others', () => {
    const dot = fc.record({
      length: fc.double({ min: 0.1, max: 1000, noNaN: true }),
      rate: fc.double({ min: 1e6, max: 1e11, noNaN: true }),
      grade: fc.constantFrom('clear' as const, 'blocked' as const),
    })
    fc.assert(
      fc.property(fc.array(dot, { maxLength: 40 }), fc.nat(3), (made, twice) => {
        const dots = [...made, ...made.slice(0, twice)].map((each, at) => ({ ...each, id: `r${at}`, tag: `R-${at}` }))
        const spots = spotsOf(dots)
        expect(
          spots
            .flat()
            .map(({ id }) => id)
            .sort(),
        ).toEqual(dots.map(({ id }) => id).sort())
        for (const [first, ...more] of spots)
          for (const each of more) {
            expect(each.grade).toBe(first?.grade)
            expect(Math.abs(Math.log10(each.length / (first?.length ?? 1)))).toBeLessThan(1 / 59)
            expect(Math.abs(Math.log10(each.rate / (first?.rate ?? 1)))).toBeLessThan(1 / 59)
          }
      }),
    )
  })
  it('has a dot for each run that is asked for a rate', () => {
    const dots = reachDots(assessAnew(demo))
    expect(dots.find(({ tag }) => tag === 'R-15')).toMatchObject({ length: 4.4, rate: 2.5e9, grade: 'clear' })
    expect(dots.some(({ tag }) => tag === 'R-13')).toBe(false)
  })
})
