import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { cases } from '../../tests/support/laws'
import { CAME } from './came'
import type { HeldBackBy } from './every'
import {
  type Read as AnyRead,
  atHand,
  type FigureSeries,
  Figures,
  figureCame,
  figureTally,
  leastOf,
  mostOf,
  reliedOn,
  SPEAKING,
  type Speaking,
  withWorth,
  worthOf,
} from './figures'
import { placeKey, type Spot } from './spot'

type Read = AnyRead<'watts'>

type Reading = { watts: number; limit: HeldBackBy; at: number }
const at = (second: number): string => `2026-04-01T09:00:${String(second).padStart(2, '0')}.000Z`
const readings = fc.array(
  fc.record({
    watts: fc.constantFrom(15, 27, 57, 60, 60.5, 100),
    limit: fc.constantFrom<HeldBackBy>('lead', 'unknown', 'charger'),
    at: fc.integer({ min: 0, max: 20 }),
  }),
  { minLength: 1, maxLength: 12 },
)
const here = { port: 'pc/1', setup: '', neighbours: false }
/** Oldest first, and of one instant the better first. */
const inOrder = (all: readonly Reading[]): Reading[] =>
  [...all].sort((one, other) => one.at - other.at || other.watts - one.watts)

function seriesOf(all: readonly Reading[], known: readonly FigureSeries[] = []): FigureSeries[] {
  const figures = new Figures(known)
  for (const { watts, limit, at: second } of inOrder(all))
    figures.add(
      { measure: 'watts', read: { watts, limit, at: at(second), id: `o-${second}` }, worth: watts, bound: false },
      { spot: {}, place: placeKey({ spot: {} }), before: false },
    )
  return figures.series()
}
const speaks = (limit: HeldBackBy, speaking: Speaking): boolean =>
  speaking === 'all' || limit === 'lead' || (speaking === 'unknown' && limit === 'unknown')

/** The same counted plainly, by going through every reading. */
function plainly(all: readonly Reading[], asked: number, speaking: Speaking) {
  const sorted = inOrder(all)
  const failed = sorted.filter(({ watts, limit }) => watts < asked && speaks(limit, speaking))
  const last = failed.length > 0 ? sorted.lastIndexOf(failed.at(-1) as Reading) : -1
  return {
    held: sorted.filter(({ watts }) => watts >= asked).length,
    atOnce: failed.length,
    triesSince: sorted.slice(last + 1).filter(({ watts }) => watts >= asked).length,
  }
}

describe('figures that were read', () => {
  const asked = fc.constantFrom(10, 15, 27, 27.1, 57, 60, 60.5, 99, 100, 240)
  it('come to what a plain count of every reading comes to, whatever is asked and whoever speaks', () => {
    fc.assert(
      fc.property(readings, asked, fc.constantFrom(...SPEAKING), (all, worth, speaking) => {
        const [series] = seriesOf(all)
        if (!series) throw new Error('something was read')
        const { held, atOnce, triesSince } = figureTally(series, worth, speaking)
        expect({ held, atOnce, triesSince }).toEqual(plainly(all, worth, speaking))
        expect(series.times).toBe(all.length)
        expect(mostOf(series)).toMatchObject({ watts: Math.max(...all.map(({ watts }) => watts)) })
        expect(leastOf(series)).toMatchObject({ watts: Math.min(...all.map(({ watts }) => watts)) })
        expect(series.last.at).toBe(at(Math.max(...all.map((each) => each.at))))
      }),
      { numRuns: cases(2000) },
    )
  })
  it('are relied on for the most that nothing speaks against', () => {
    fc.assert(
      fc.property(readings, fc.constantFrom(...SPEAKING), (all, speaking) => {
        const [series] = seriesOf(all)
        const relied = series && reliedOn(series, speaking)
        if (!all.some(({ limit }) => speaks(limit, speaking))) expect(relied).toBeNull()
        else {
          const good = (worth: number): boolean => {
            const { atOnce, triesSince } = plainly(all, worth, speaking)
            return triesSince >= 3 * atOnce
          }
          const figures = [...new Set(all.map(({ watts }) => watts))].sort((one, other) => one - other)
          expect(relied).toBe(figures.filter(good).at(-1))
        }
      }),
      { numRuns: cases(1000) },
    )
  })
  it('are never worse for one more that reached it, nor better for one more that did not', () => {
    fc.assert(
      fc.property(readings, asked, fc.integer({ min: 0, max: 20 }), (all, worth, second) => {
        const rank = (more: readonly Reading[]): number => {
          const found = figureCame(seriesOf([...all, ...more]), worth, 'unknown', here)
          return found === null ? 2.5 : CAME.indexOf(found.came)
        }
        const was = rank([])
        expect(rank([{ watts: worth, limit: 'lead', at: second }])).toBeGreaterThanOrEqual(was)
        expect(rank([{ watts: worth - 1, limit: 'lead', at: second }])).toBeLessThanOrEqual(was)
      }),
      { numRuns: cases(2000) },
    )
  })
  it('go on from what is known, as if all had been read at once', () => {
    fc.assert(
      fc.property(readings, fc.nat(12), (all, cut) => {
        const sorted = inOrder(all)
        const kept: FigureSeries[] = JSON.parse(JSON.stringify(seriesOf(sorted.slice(0, cut))))
        expect(seriesOf(sorted.slice(cut), kept)).toEqual(seriesOf(sorted))
      }),
      { numRuns: cases(500) },
    )
  })
  it('are worth more the better they are, and a reading of so much worth is worth that', () => {
    const of = { at: '', id: '', limit: 'lead' } as const
    const better = [
      ['write', { ...of, rate: 1e9 }, { ...of, rate: 2e9 }],
      ['watts', { ...of, watts: 59 }, { ...of, watts: 60 }],
      ['battery', { ...of, slope: -4, hours: 3 }, { ...of, slope: -3, hours: 1 }],
      ['added delay', { ...of, ms: 8 }, { ...of, ms: 7.9 }],
      ['frames', { ...of, asked: 1800, came: 1240 }, { ...of, asked: 900, came: 900 }],
      ['sight', { ...of, good: false }, { ...of, good: true }],
      ['job', { ...of, what: 'build', done: false }, { ...of, what: 'build', done: true }],
      ['warmth', { ...of, felt: 'hot' as const }, { ...of, felt: 'warm' as const }],
      // 0.7 V at 0.25 A are 2.8 ohms, and 1.2 V at 3 A are 0.4
      ['volts lost', { ...of, volts: 0.7, amps: 0.25 }, { ...of, volts: 1.2, amps: 3 }],
    ] as const
    for (const [measure, worse, best] of better) {
      const [less, more] = [worthOf(measure, worse as never), worthOf(measure, best as never)] as [number, number]
      expect([measure, more > less]).toEqual([measure, true])
      expect(worthOf(measure, withWorth(measure, worse, more) as never)).toBeCloseTo(more, 9)
    }
    expect(worthOf('volts lost', { volts: 0.4, amps: 0 })).toBeNull()
  })

  const place = (spot: Spot, before = false) => ({ spot, place: placeKey({ spot, before }), before })
  const read = (watts: number, second: number, limit?: HeldBackBy): Read => ({
    watts,
    at: at(second),
    id: `o-${second}`,
    ...(limit ? { limit } : {}),
  })
  const taken = (...all: [watts: number, spot: Spot, before?: boolean][]): FigureSeries[] => {
    const figures = new Figures()
    for (const [second, [watts, spot, before]] of all.entries())
      figures.add({ measure: 'watts', read: read(watts, second), worth: watts, bound: false }, place(spot, before))
    return figures.series()
  }
  it('stand apart where somebody set it right between, or something else was installed, and what was before counts where nothing is now', () => {
    const driver = (setup: string) => ({ port: 'pc/1', setup })
    const withDriver = { ...here, setup: 'driver 2' }
    const cameAt = (all: FigureSeries[], of = here) => figureCame(all, 60, 'all', of)
    expect(taken([60, {}], [60, {}, true]).map(({ before }) => before ?? false)).toEqual([false, true])
    // what failed before is cleared by three that reached it since, and not by two
    const failed: [number, Spot, boolean] = [50, {}, true]
    expect(cameAt(taken(failed))).toMatchObject({ came: 'begun anew', tally: { held: 0, atOnce: 1 } })
    expect(cameAt(taken(failed, [60, {}], [60, {}]))?.came).toBe('begun anew')
    expect(cameAt(taken(failed, [60, {}], [60, {}], [60, {}]))?.came).toBe('held')
    expect(cameAt(taken([60, {}, true], [61, {}, true]))).toMatchObject({ came: 'held', tally: { held: 2, atOnce: 0 } })
    expect(cameAt(taken([50, driver('driver 1')]), withDriver)?.came).toBe('begun anew')
    expect(cameAt(taken([50, driver('driver 2')]), withDriver)?.came).toBe('failed')
    // of places that are noted in more or less detail the worse counts, whichever comes first
    const detailed = { port: 'pc/1', controller: 'board' }
    for (const [one, other] of [
      [50, 60],
      [60, 50],
    ] as const)
      expect(cameAt(taken([one, {}], [other, detailed]))?.came).toBe('failed')
    expect(cameAt(taken([50, { port: 'pc/2' }]))).toBeNull()
  })
  it('are at hand as they were read with what is installed now, and as before where there are none', () => {
    const [now] = taken([60, { setup: 'driver 2' }])
    const [old] = taken([50, { setup: 'driver 1' }])
    const [plain] = taken([40, {}])
    const [before] = taken([30, { setup: 'driver 2' }, true])
    if (!now || !old || !plain || !before) throw new Error('four series')
    const withDriver = { setup: 'driver 2' }
    expect(atHand([old, now, before, plain], withDriver)).toEqual([now, plain])
    expect(atHand([old, before], withDriver)).toEqual([old, before])
    expect(atHand([], withDriver)).toEqual([])
  })
  it('say how far each speaks where one was held back by something else and another was not', () => {
    const figures = new Figures()
    const add = (watts: number, second: number, limit?: HeldBackBy, bound = false) =>
      figures.add({ measure: 'watts', read: read(watts, second, limit), worth: watts, bound }, place({}))
    add(40, 0, 'charger')
    expect(reliedOn(figures.series()[0] as FigureSeries, 'lead')).toBeNull()
    expect(figures.series()[0]?.voice).toBe('bound')
    add(50, 1)
    const [mixed] = figures.series()
    if (!mixed) throw new Error('a series')
    // nobody said what the limit of the second was: it counts against the lead only where the unknown does
    expect(SPEAKING.map((speaking) => figureTally(mixed, 60, speaking).atOnce)).toEqual([0, 1, 2])
    expect(SPEAKING.map((speaking) => reliedOn(mixed, speaking))).toEqual([null, 50, 40])
    add(45, 2, 'lead', true)
    expect(SPEAKING.map((speaking) => figureTally(figures.series()[0] as FigureSeries, 60, speaking).atOnce)).toEqual([
      0, 1, 3,
    ])
    expect([worthOf('watts', leastOf(mixed) as Read), worthOf('watts', mostOf(mixed) as Read), mixed.times]).toEqual([
      40, 50, 2,
    ])
  })
  it('come in an order that follows from them alone', () => {
    const names = (all: FigureSeries[]) => all.map(({ spot }) => spot.port)
    expect(names(taken([1, { port: 'b' }], [1, { port: 'a' }], [1, { port: 'c' }]))).toEqual(['a', 'b', 'c'])
    expect(names(taken([1, { port: 'c' }], [1, { port: 'b' }], [1, { port: 'a' }]))).toEqual(['a', 'b', 'c'])
  })
})
