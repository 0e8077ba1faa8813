import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { CHROMAS, HDR_BITS } from '../vocabulary/need'
import { formatPictureMode, parsePictureMode } from './mode-text'

describe('picture modes as text', () => {
  it.each([
    ['3840x2160@60', { width: 3840, height: 2160, refresh: 60, bits: 8, chroma: '444' }],
    ['4K@60 10 bit 4:2:0', { width: 3840, height: 2160, refresh: 60, bits: 10, chroma: '420' }],
    ['2560 x 1440 @ 144 Hz', { width: 2560, height: 1440, refresh: 144, bits: 8, chroma: '444' }],
    ['1920×1080@59.94, 12-bit, 422', { width: 1920, height: 1080, refresh: 59.94, bits: 12, chroma: '422' }],
    ['4K@60 HDR', { width: 3840, height: 2160, refresh: 60, bits: 10, chroma: '444', hdr: true }],
    ['4k@60 hdr 12 bit 4:2:2', { width: 3840, height: 2160, refresh: 60, bits: 12, chroma: '422', hdr: true }],
  ])('%s', (text, mode) => {
    expect(parsePictureMode(text)).toEqual({ ok: true, value: mode })
  })

  it.each([
    '',
    '3840x2160',
    '3840@60',
    '1x1@60',
    '99999x2160@60',
    '3840x2160@9000',
    '3840x2160@60 9 bit',
    '3840x2160@60 bright',
    '3840x2160@60 8 bit HDR',
  ])('refuses %j and shows how it is written', (text) => {
    const read = parsePictureMode(text)
    expect(read.ok).toBe(false)
    if (!read.ok) expect(read.problem).toMatch(/3840x2160@60|bits per colour/i)
  })

  it('reads back every mode it writes', () => {
    const mode = fc.record({
      width: fc.integer({ min: 320, max: 16_384 }),
      height: fc.integer({ min: 200, max: 16_384 }),
      refresh: fc.integer({ min: 10, max: 480 }),
      bits: fc.constantFrom(6 as const, 8 as const, 10 as const, 12 as const, 16 as const),
      chroma: fc.constantFrom(...CHROMAS),
      hdr: fc.constantFrom(true as const, undefined),
    })
    fc.assert(
      fc.property(mode, ({ hdr, ...plain }) => {
        const given = hdr && plain.bits >= HDR_BITS ? { ...plain, hdr } : plain
        expect(parsePictureMode(formatPictureMode(given))).toEqual({ ok: true, value: given })
      }),
    )
  })
})
