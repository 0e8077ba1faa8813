import fc from 'fast-check'
import { pwilcox, qchisq, qt } from 'lib-r-math.js'
import { describe, expect, it } from 'vitest'
import { compareRepeats, repeatsToShow } from '../../core/quantity/compare'
import { cleanSoakPromises, dropRate, exactShare, SECONDS_OF_DAY } from '../../core/quantity/intervals'
import { fitLine } from '../../core/quantity/line-fit'

describe('how often something worked', () => {
  it('9 of 10 is anything from 55.5 to 99.7 % (Clopper and Pearson 1934, as handbooks print it)', () => {
    expect(exactShare(9, 10)?.low).toBeCloseTo(0.555, 4)
    expect(exactShare(9, 10)?.high).toBeCloseTo(0.9975, 4)
    expect(exactShare(0, 0)).toBeNull()
    expect(exactShare(0, 5)).toMatchObject({ low: 0, share: 0 })
    expect(exactShare(5, 5)).toMatchObject({ high: 1, share: 1 })
  })

  it('its ends are the shares at which what was seen is one in forty, summed plainly', () => {
    const chance = (least: number, most: number, tried: number, share: number): number => {
      let sum = 0
      for (let held = least; held <= most; held += 1) {
        let ways = 1
        for (let at = 0; at < held; at += 1) ways = (ways * (tried - at)) / (at + 1)
        sum += ways * share ** held * (1 - share) ** (tried - held)
      }
      return sum
    }
    for (let tried = 1; tried <= 30; tried += 1)
      for (let passed = 0; passed <= tried; passed += 1) {
        const rate = exactShare(passed, tried)
        if (!rate) throw new Error('no rate')
        if (passed > 0) expect(chance(passed, tried, tried, rate.low)).toBeCloseTo(0.025, 8)
        if (passed < tried) expect(chance(0, passed, tried, rate.high)).toBeCloseTo(0.025, 8)
        expect(rate.low).toBeLessThanOrEqual(rate.share)
        expect(rate.high).toBeGreaterThanOrEqual(rate.share)
      }
  })
})

describe('how often a link drops', () => {
  it('no drop in a day is up to 3.689 a day, ten are 4.795 to 18.390 (Garwood 1936, table)', () => {
    expect(dropRate(0, SECONDS_OF_DAY)?.high).toBeCloseTo(3.6889, 3)
    expect(dropRate(10, SECONDS_OF_DAY)?.low).toBeCloseTo(4.7954, 3)
    expect(dropRate(10, SECONDS_OF_DAY)?.high).toBeCloseTo(18.3904, 3)
    expect(dropRate(0, 0)).toBeNull()
  })

  it('is what another statistics package says, however long it was watched', () => {
    fc.assert(
      fc.property(fc.nat(200), fc.integer({ min: 1, max: 10_000_000 }), (drops, seconds) => {
        const rate = dropRate(drops, seconds)
        const high = (qchisq(0.975, 2 * drops + 2) / 2) * (SECONDS_OF_DAY / seconds)
        expect((rate?.high ?? 0) / high).toBeCloseTo(1, 6)
        if (drops > 0)
          expect((rate?.low ?? 0) / ((qchisq(0.025, 2 * drops) / 2) * (SECONDS_OF_DAY / seconds))).toBeCloseTo(1, 6)
      }),
    )
  })

  it('a clean soak promises a third of its length: the rule of three (Hanley and Lippman-Hand 1983)', () => {
    expect(cleanSoakPromises(60)).toBeCloseTo(20.03, 2)
    expect(cleanSoakPromises(10 * SECONDS_OF_DAY) / SECONDS_OF_DAY).toBeCloseTo(3.338, 3)
  })
})

describe('a line through points', () => {
  it("Anscombe's first set has slope 0.5001 with standard error 0.1179 (Anscombe 1973)", () => {
    const xs = [10, 8, 13, 9, 11, 14, 6, 4, 12, 7, 5]
    const ys = [8.04, 6.95, 7.58, 8.81, 8.33, 9.96, 7.24, 4.26, 10.84, 4.82, 5.68]
    const fit = fitLine(xs.map((x, at) => [x, ys[at] as number]))
    expect(fit?.slope).toBeCloseTo(0.5001, 4)
    expect(fit?.intercept).toBeCloseTo(3.0001, 4)
    expect((fit?.high ?? 0) - (fit?.slope ?? 0)).toBeCloseTo(qt(0.975, 9) * 0.1179, 3)
  })

  it('has no slope at one place, and an open one through two points', () => {
    expect(fitLine([])).toBeNull()
    expect(
      fitLine([
        [1, 2],
        [1, 3],
      ]),
    ).toBeNull()
    expect(
      fitLine([
        [0, 1],
        [2, 5],
      ]),
    ).toMatchObject({ slope: 2, intercept: 1, high: Number.POSITIVE_INFINITY })
  })

  it('a line through points on a line is that line', () => {
    const figure = fc.double({ min: -100, max: 100, noNaN: true })
    fc.assert(
      fc.property(figure, figure, fc.integer({ min: 3, max: 30 }), (slope, intercept, count) => {
        const fit = fitLine(Array.from({ length: count }, (_, x) => [x, intercept + slope * x]))
        expect(fit?.slope).toBeCloseTo(slope, 6)
        expect((fit?.high ?? 0) - (fit?.low ?? 0)).toBeLessThan(1e-5)
      }),
    )
  })
})

describe('before and after', () => {
  it("Student's sleep data: -1.58 h, from -3.365 to 0.205 (Student 1908; Welch's interval as handbooks print it)", () => {
    const first = [0.7, -1.6, -0.2, -1.2, -0.1, 3.4, 3.7, 0.8, 0, 2]
    const second = [1.9, 0.8, 1.1, 0.1, -0.1, 4.4, 5.5, 1.6, 4.6, 3.4]
    const compared = compareRepeats(second, first)
    expect(compared?.difference).toBeCloseTo(-1.58, 6)
    expect(compared?.low).toBeCloseTo(-3.3655, 3)
    expect(compared?.high).toBeCloseTo(0.2055, 3)
  })

  it('four against four that do not overlap: 2 of 70 (Mann and Whitney 1947, table)', () => {
    expect(compareRepeats([1, 2, 3, 4], [5, 6, 7, 8])?.byRank).toBeCloseTo(2 / 70, 10)
    expect(compareRepeats([5, 5, 5], [5, 5, 5])).toMatchObject({ difference: 0, low: 0, high: 0, byRank: 1 })
    expect(compareRepeats([1], [2, 3])).toBeNull()
  })

  it('ranks are as likely as another statistics package says, where no two readings are one', () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.integer({ min: 1, max: 500 }), { minLength: 4, maxLength: 24 }),
        fc.integer({ min: 2, max: 22 }),
        (readings, cut) => {
          fc.pre(cut <= readings.length - 2)
          const [one, other] = [readings.slice(0, cut), readings.slice(cut)]
          const above = one.reduce((sum, value) => sum + other.filter((each) => each < value).length, 0)
          const least = Math.min(above, one.length * other.length - above)
          const chance = Math.min(1, 2 * pwilcox(least, one.length, other.length))
          expect(compareRepeats(one, other)?.byRank).toBeCloseTo(chance, 8)
        },
      ),
    )
  })

  it('which side comes first does not matter, and its interval holds its difference', () => {
    const side = fc.array(fc.double({ min: 0, max: 1000, noNaN: true }), { minLength: 2, maxLength: 12 })
    fc.assert(
      fc.property(side, side, (one, other) => {
        const [there, back] = [compareRepeats(one, other), compareRepeats(other, one)]
        if (!there || !back) throw new Error('two repeats a side')
        expect(there.difference).toBeCloseTo(-back.difference, 6)
        expect(there.low).toBeCloseTo(-back.high, 6)
        expect(there.byRank).toBeCloseTo(back.byRank, 9)
        expect(there.low).toBeLessThanOrEqual(there.difference + 1e-9)
      }),
    )
  })

  it('so many repeats show the difference they were counted for, and one fewer does not', () => {
    const shown = (each: number, deviation: number): number => {
      const freedom = 2 * each - 2
      return (qt(0.975, freedom) + qt(0.8, freedom)) * deviation * Math.sqrt(2 / each)
    }
    for (const [difference, deviation] of [
      [10, 5],
      [10, 10],
      [3, 1],
      [1, 1],
    ] as const) {
      const each = repeatsToShow(difference, deviation) as number
      expect(shown(each, deviation)).toBeLessThanOrEqual(difference)
      if (each > 2) expect(shown(each - 1, deviation)).toBeGreaterThan(difference)
    }
    expect(repeatsToShow(0.01, 10)).toBeNull()
    expect(repeatsToShow(0, 1)).toBeNull()
  })
})
