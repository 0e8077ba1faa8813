import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { Need } from './need'
import { NEED_KINDS } from './need'
import { countedSize, formatNeedSize, needExamples, parseNeedSize, saidSize } from './need-text'

describe('the size of a need as text', () => {
  it('reads its own example of every kind, and writes it back the same', () => {
    for (const kind of NEED_KINDS) {
      const read = parseNeedSize(kind, needExamples[kind])
      expect(read.ok, kind).toBe(true)
      if (read.ok)
        expect(saidSize({ ...read.value, id: 'n', from: 'a', to: 'b', said: needExamples[kind] } as Need)).toBe(
          needExamples[kind],
        )
    }
  })

  it('is told how many alike it is of, and nothing that is a size by itself is taken for a number', () => {
    expect(countedSize('2x 3840x2160@60 HDR')).toEqual({ count: 2, size: '3840x2160@60 HDR' })
    expect(countedSize(' 3 x 800 MB/s')).toEqual({ count: 3, size: '800 MB/s' })
    for (const alone of ['3840x2160@60', '0x 4K@60', '17x 4K@60', '2x', ...Object.values(needExamples)])
      expect(countedSize(alone)).toEqual({ count: 1, size: alone })
  })

  it('takes bus power beside a rate', () => {
    expect(parseNeedSize('camera', '4 Gb/s + 4.5 W')).toEqual({
      ok: true,
      value: { kind: 'camera', rate: 4e9, watts: 4.5 },
    })
  })

  it.each([
    ['power', '5 Gb/s'],
    ['storage', '96 W'],
    ['camera', '4 Gb/s + lots'],
    ['camera', '4 Gb/s + 1 W + 1 W'],
    ['picture', '5 Gb/s'],
  ] as const)('refuses %s %j', (kind, text) => {
    expect(parseNeedSize(kind, text).ok).toBe(false)
  })

  it('reads back every rate it writes', () => {
    const rate = fc.integer({ min: 1, max: 900_000 }).map((megabits) => megabits * 1e6)
    fc.assert(
      fc.property(fc.constantFrom('storage' as const, 'data' as const, 'headset' as const), rate, (kind, bits) => {
        const read = parseNeedSize(kind, formatNeedSize({ kind, rate: bits }))
        expect(read.ok && 'rate' in read.value && Math.abs(read.value.rate - bits) < 1).toBe(true)
      }),
    )
  })
})
