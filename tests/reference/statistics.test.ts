import fc from 'fast-check'
import jstat from 'jstat'
import { expect, it } from 'vitest'
import { spreadOf } from '../../core/quantity/statistics'

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
