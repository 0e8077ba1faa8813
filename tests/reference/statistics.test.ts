import fc from 'fast-check'
import jstat from 'jstat'
import { expect, it } from 'vitest'
import { spreadOf, successRate } from '../../core/quantity/statistics'

it('median, mean and deviation are those of another statistics package', () => {
  const reading = fc.double({ min: 0, max: 5000, noNaN: true })
  fc.assert(
    fc.property(fc.array(reading, { minLength: 2, maxLength: 40 }), (readings) => {
      const spread = spreadOf(readings)
      expect(spread?.median).toBeCloseTo(jstat.median(readings), 6)
      expect(spread?.mean).toBeCloseTo(jstat.mean(readings), 6)
      expect(spread?.deviation).toBeCloseTo(jstat.stdev(readings, true), 6)
    }),
  )
  expect(spreadOf([])).toBeNull()
  expect(spreadOf([7])).toMatchObject({ median: 7, mean: 7, deviation: 0, least: 7, most: 7 })
})

it("Wilson's interval is where the score test of the other package lies at 5 %", () => {
  for (let tried = 1; tried <= 40; tried += 1) {
    for (let passed = 0; passed <= tried; passed += 1) {
      const rate = successRate(passed, tried)
      if (!rate) throw new Error('no rate')
      // the interval's ends are the shares whose score test just rejects what was seen
      for (const end of [rate.low, rate.high]) {
        if (end < 1e-9 || end > 1 - 1e-9) continue
        const z = (passed / tried - end) / Math.sqrt((end * (1 - end)) / tried)
        expect(2 * (1 - jstat.normal.cdf(Math.abs(z), 0, 1))).toBeCloseTo(0.05, 6)
      }
      expect(rate.low).toBeLessThanOrEqual(rate.share)
      expect(rate.high).toBeGreaterThanOrEqual(rate.share)
    }
  }
  expect(successRate(0, 0)).toBeNull()
})

it('9 of 10 is anything from 60 to 98 % (Wilson 1927, as handbooks print it)', () => {
  const rate = successRate(9, 10)
  expect(rate?.low).toBeCloseTo(0.5958, 4)
  expect(rate?.high).toBeCloseTo(0.9821, 4)
})
