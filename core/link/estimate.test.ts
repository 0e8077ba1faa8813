import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { cases } from '../../tests/support/laws'
import { type AskedOf, estimate as estimateOf, holdsMostly, type Outcome, oddsWith, sumsOf, TOP_ODDS } from './estimate'

const asked = {
  mode: 'gen2x1',
  construction: 'passive',
  kind: 'plain',
  length: 3,
  controller: 'board',
  socket: 'pc/1',
} as const satisfies AskedOf
const outcome = (more: Partial<Outcome>): Outcome => ({ ...asked, held: 1, tried: 1, ...more })
const estimate = (
  own: readonly Outcome[],
  of: AskedOf,
  { others = [], weight = 0 }: { others?: readonly Outcome[]; weight?: number } = {},
) => estimateOf(sumsOf(own), of, { others: sumsOf(others), weight })
const outcomes = fc.array(
  fc
    .record({
      mode: fc.constantFrom('gen2x1' as const, 'usb4-40' as const),
      construction: fc.constantFrom('passive' as const, 'active' as const),
      kind: fc.constantFrom('plain', 'other', null),
      length: fc.constantFrom(1, 3, null),
      controller: fc.constantFrom('board', 'card', null),
      socket: fc.constantFrom('pc/1', 'pc/2', null),
      tried: fc.integer({ min: 1, max: 9 }),
      held: fc.nat(9),
    })
    .map(({ held, ...rest }) => ({ ...rest, held: Math.min(held, rest.tried) })),
  { maxLength: 12 },
)

/** The same worked out plainly: at each level all that fits there and above, beside two tries of what was thought before. */
function plainly(own: readonly Outcome[], others: readonly Outcome[], weight: number, top = TOP_ODDS): number {
  const fields = [['mode', 'construction'], ['kind'], ['length'], ['controller'], ['socket']] as const
  let odds = top
  for (let level = 0; level < fields.length; level += 1) {
    const names = fields.slice(0, level + 1).flat()
    const fits = (each: Outcome): boolean => names.every((name) => each[name] !== null && each[name] === asked[name])
    const count = (all: readonly Outcome[], figure: 'held' | 'tried'): number =>
      all.filter(fits).reduce((sum, each) => sum + each[figure], 0)
    const held = count(own, 'held') + weight * count(others, 'held')
    const tried = count(own, 'tried') + weight * count(others, 'tried')
    odds = (held + 2 * odds) / (tried + 2)
  }
  return odds
}

describe('how likely a lead is to hold', () => {
  it('is 0.85 where nothing is known, and what a plain count at each level comes to where something is', () => {
    expect(estimate([], asked)).toEqual({ odds: TOP_ODDS, open: 1, own: null, ofKind: { held: 0, tried: 0 } })
    fc.assert(
      fc.property(outcomes, outcomes, fc.constantFrom(0, 0.5, 1), (own, others, weight) => {
        const found = estimate(own, asked, { others, weight })
        expect(found.odds).toBeCloseTo(plainly(own, others, weight), 12)
        // whoever thinks otherwise of what nobody tried comes to the same as if it had been thought from the start
        for (const top of [0, 0.7, 1]) expect(oddsWith(found, top)).toBeCloseTo(plainly(own, others, weight, top), 12)
      }),
      { numRuns: cases(500) },
    )
  })
  it('is never less for one more that held, nor more for one more that failed, wherever it was tried', () => {
    fc.assert(
      fc.property(
        outcomes,
        outcomes.filter(({ length }) => length > 0),
        (own, [more]) => {
          if (!more) return
          const was = estimate(own, asked).odds
          expect(estimate([...own, { ...more, held: more.tried }], asked).odds).toBeGreaterThanOrEqual(was - 1e-12)
          expect(estimate([...own, { ...more, held: 0 }], asked).odds).toBeLessThanOrEqual(was + 1e-12)
        },
      ),
      { numRuns: cases(500) },
    )
  })
  it('others pull it and never enter what is told of this site: one try of a build bears little on every kind of it', () => {
    const failed = [outcome({ held: 0, kind: 'other' })]
    const one = estimate(failed, asked).odds
    expect(one).toBeCloseTo((2 * TOP_ODDS) / 3, 12)
    // a kind that held ten times is not moved by it
    const held = Array.from({ length: 10 }, () => outcome({}))
    expect(estimate([...failed, ...held], asked).odds).toBeGreaterThan(0.99)
    const told = estimate([], asked, { others: held, weight: 1 })
    expect(told.own).toBeNull()
    expect(told.odds).toBeGreaterThan(0.99)
    expect(holdsMostly(told)).toBe(false)
  })
  it('more than half hold, 90 % sure: four of four, and not three of three (0.1 to the power of a fourth and of a third)', () => {
    const of = (held: number, tried: number) => holdsMostly(estimate([outcome({ held, tried })], asked))
    expect([0.1 ** (1 / 3) > 0.5, of(3, 3)]).toEqual([false, false])
    expect([0.1 ** (1 / 4) > 0.5, of(4, 4)]).toEqual([true, true])
    expect([of(5, 6), of(6, 7)]).toEqual([false, true])
    // of another length it says nothing
    expect(holdsMostly(estimate([outcome({ held: 9, tried: 9, length: 1 })], asked))).toBe(false)
  })
})
