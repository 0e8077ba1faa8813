import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { Need } from '../vocabulary/need'
import { NEED_KINDS } from '../vocabulary/need'
import { countedSize, formatNeedSize, needExamples, parseNeedSize, readNeedSize, saidSize } from './need-text'

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

  it('of storage may say what is written and what is read, as figures or as jobs, and reads back what it writes', () => {
    for (const [text, rate, back] of [
      ['800 MB/s write, 2000 MB/s read', 6.4e9, 16e9],
      ['100 GB in 20 min write, 1 GB/s read', 8e11 / 1200, 8e9],
      ['5 Gb/s write, 5 Gb/s read', 5e9, undefined],
    ] as const) {
      const read = readNeedSize('storage', `${text} + 4.5 W`)
      if (!read.ok) throw new Error(read.problem)
      expect(read.value).toMatchObject({ rate: expect.closeTo(rate, 0), watts: 4.5 })
      expect('back' in read.value ? read.value.back : undefined).toBe(back)
      const again = parseNeedSize('storage', formatNeedSize(read.value))
      expect(again.ok && formatNeedSize(again.value)).toBe(formatNeedSize(read.value))
    }
    for (const wrong of [
      '800 MB/s write',
      '800 MB/s write, 2 GB/s',
      'lots write, 2 GB/s read',
      '1 GB/s write, 1 GB/s read, 1 GB/s read',
    ])
      expect(parseNeedSize('storage', wrong).ok, wrong).toBe(false)
    expect(parseNeedSize('camera', '1 GB/s write, 2 GB/s read').ok).toBe(false)
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
