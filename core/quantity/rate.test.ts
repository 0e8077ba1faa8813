import { describe, expect, it } from 'vitest'
import { formatBytesPerSecond, formatRate, parseRate } from './rate'
import { formatWatts, parseWatts } from './watts'

const value = (read: ReturnType<typeof parseRate>) => (read.ok ? read.value : read.problem)

describe('parseRate', () => {
  it.each([
    ['5 Gb/s', 5e9],
    ['480 Mb/s', 480e6],
    ['10G', 10e9],
    ['2,5 Gbps', 2.5e9],
    ['3000 MB/s', 24e9],
    ['3 GB/s', 24e9],
    ['100 MBps', 800e6],
  ])('%s', (text, expected) => {
    expect(value(parseRate(text))).toBe(expected)
  })
  it.each(['5', '', 'fast', '5 parsecs', '0 Gb/s', '-1 Gb/s', '99999 Gb/s'])('refuses %j', (text) => {
    expect(parseRate(text).ok).toBe(false)
  })
  it('tells bits from bytes by the letter alone', () => {
    expect(value(parseRate('8 Mb/s'))).toBe(value(parseRate('1 MB/s')))
  })
})

describe('parseWatts', () => {
  it('reads and bounds', () => {
    expect(value(parseWatts('9,2W'))).toBe(9.2)
    expect(value(parseWatts('96 watts'))).toBe(96)
    expect(parseWatts('241 W').ok).toBe(false)
    expect(parseWatts('0 W').ok).toBe(false)
    expect(parseWatts('96').ok).toBe(false)
  })
})

it('writes rates and power the way people say them', () => {
  expect(formatRate(480e6)).toBe('480 Mb/s')
  expect(formatRate(12.542736e9)).toBe('12.54 Gb/s')
  expect(formatRate(0)).toBe('nothing')
  expect(formatBytesPerSecond(24e9)).toBe('3000 MB/s')
  expect(formatWatts(9.2)).toBe('9.2 W')
  expect(formatWatts(0)).toBe('no power')
})
