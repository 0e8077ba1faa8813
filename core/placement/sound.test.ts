import fc from 'fast-check'
import { describe, expect } from 'vitest'
import { ours, practice, publishedIn } from '../../tests/support/figures'
import { addLevels, distanceFor, levelAt } from './sound'

describe('noise', () => {
  publishedIn('inverse square law, ISO 9613-2')('falls 6 dB with each doubling of distance', () => {
    expect(levelAt(60, 1, 2)).toBeCloseTo(53.979, 3)
    expect(levelAt(60, 1, 10)).toBe(40)
  })
  ours('of two equal boxes is 3 dB more, and of a loud and a quiet one about the loud one', () => {
    expect(addLevels([50, 50])).toBeCloseTo(53.01, 2)
    expect(addLevels([60, 34])).toBeCloseTo(60.01, 2)
  })
  practice('a graphics enclosure of 49 dB at 0.7 m is at 34 dB from about 4 m', () => {
    expect(distanceFor(49, 0.7, 34)).toBeCloseTo(3.94, 2)
    expect(distanceFor(30, 0.7, 34)).toBe(0.7)
  })
  ours('at the distance found is the level wanted', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 35, max: 90, noNaN: true }),
        fc.double({ min: 0.2, max: 3, noNaN: true }),
        fc.double({ min: 20, max: 34, noNaN: true }),
        (level, at, wanted) => {
          expect(levelAt(level, at, distanceFor(level, at, wanted))).toBeCloseTo(wanted, 6)
        },
      ),
    )
  })
})
