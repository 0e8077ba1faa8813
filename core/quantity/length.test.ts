import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { cases } from '../../tests/support/laws'
import { formatLength, formatLengthBoth, LONGEST_LENGTH, parseLength, SHORTEST_LENGTH } from './length'

const metres = (text: string, unit?: 'm' | 'ft') => {
  const read = parseLength(text, unit)
  return read.ok ? read.value : read.problem
}

describe('parseLength', () => {
  // the foot is 0.3048 m and the inch 25.4 mm, exactly (international yard and pound agreement, 1959)
  it.each([
    ['4.2 m', 4.2],
    ['5m', 5],
    ['4,2 m', 4.2],
    ['420 cm', 4.2],
    ['1500 mm', 1.5],
    ['0.3 km', 300],
    ['14 ft', 14 * 0.3048],
    ['16ft', 16 * 0.3048],
    ['16 feet', 16 * 0.3048],
    ['13\' 9"', 13.75 * 0.3048],
    ['13’ 9”', 13.75 * 0.3048],
    ["26' 3''", 26.25 * 0.3048],
    ['13 ft 9 in', 13.75 * 0.3048],
    ['6 ft 7 1/2 in', 6.625 * 0.3048],
    ['1/2"', 0.0127],
    ['9 in', 0.2286],
    ['2.5', 2.5],
  ])('%s', (text, expected) => {
    expect(metres(text)).toBeCloseTo(expected, 12)
  })

  it('takes a bare number in the unit in force', () => {
    expect(metres('10', 'ft')).toBeCloseTo(3.048, 12)
  })

  it.each([
    '',
    '5 parsecs',
    '0',
    '-1',
    '-1 m',
    '1e9',
    '1e9 m',
    '1000000000 m',
    'NaN',
    'm',
    "'",
    '1e999',
    '4 m 20',
    '__proto__',
  ])('refuses %j with a sentence', (text) => {
    expect(metres(text)).toMatch(/length/i)
  })

  it('reads back what it writes, to the half of the last figure shown', () => {
    const lengths = fc.double({ min: SHORTEST_LENGTH * 2, max: LONGEST_LENGTH / 2, noNaN: true })
    fc.assert(
      fc.property(lengths, fc.constantFrom('m' as const, 'ft' as const), (length, unit) => {
        const back = metres(formatLength(length, unit))
        expect(Math.abs((back as number) - length)).toBeLessThanOrEqual(unit === 'm' ? 0.005001 : 0.00636)
      }),
    )
  })

  it('never answers anything but a finite length within bounds, whatever is typed', () => {
    fc.assert(
      fc.property(fc.oneof(fc.string(), fc.stringMatching(/^[\d.,'" ftinmc/-]{0,12}$/)), (text) => {
        const read = parseLength(text)
        if (read.ok) expect(read.value >= SHORTEST_LENGTH && read.value <= LONGEST_LENGTH).toBe(true)
      }),
      { numRuns: cases(2000) },
    )
  })
})

describe('formatLength', () => {
  it('rounds 11 3/4 in up to the next foot rather than to 12 in', () => {
    expect(formatLength(0.3048 * 0.99, 'ft')).toBe('1 ft')
    expect(formatLength(0.25, 'ft')).toBe('10 in')
  })
  it('shows both units', () => {
    expect(formatLengthBoth(4.2)).toBe('4.2 m (13 ft 9.5 in)')
    expect(formatLengthBoth(3.048, 'ft')).toBe('10 ft (3.05 m)')
    expect(formatLength(0.05)).toBe('5 cm')
  })
})
