import fc from 'fast-check'
import { describe, expect } from 'vitest'
import { ours, practice, publishedIn, remembered } from '../../tests/support/figures'
import { DISPLAYPORT_LINKS, HDMI_LEVELS } from '../standards/picture-links'
import type { PictureMode } from '../vocabulary/need'
import { alternatives, CONCESSIONS, fitPicture, lesserModes } from './fit'
import { type LinkSpec, linkFacts, parseLinkSpec } from './link-spec'
import { formatPictureMode, parsePictureMode } from './mode-text'
import { payloadBandwidthNumber, sharePictures } from './time-slots'

const mode = (text: string): PictureMode => {
  const read = parsePictureMode(text)
  if (!read.ok) throw new Error(read.problem)
  return read.value
}
const link = (text: string): LinkSpec => {
  const read = parseLinkSpec(text)
  if (!read.ok) throw new Error(read.problem)
  return read.value
}
const plain = { compression: false }
const both = { compression: true }

describe('links as text', () => {
  ours('are read with and without the family', () => {
    expect(link('hbr3x4')).toEqual(link('DP:HBR3x4'))
    expect(linkFacts(link('dp:uhbr13.5x4')).payload).toBeCloseTo(4 * 13.5e9 * 0.9671, -7)
    expect(linkFacts(link('hdmi:frl-48')).payload).toBeCloseTo(42.667e9, -7)
  })
  ours.each(['', 'dp:hbr9x4', 'hbr3x3', 'hdmi:2.0', 'usb'])('%j is refused with what is allowed', (text) => {
    const read = parseLinkSpec(text)
    expect(!read.ok && read.problem).toContain('dp:LINKxLANES')
  })
})

describe('does this mode fit', () => {
  practice.each([
    ['3840x2160@60', 'dp:hbr2x4', true],
    ['3840x2160@60', 'dp:hbr2x2', false],
    ['3840x2160@120', 'dp:hbr3x4', true],
    ['3840x2160@144 10 bit', 'dp:hbr3x4', false],
    ['5120x2880@60', 'dp:hbr3x4', true],
    ['7680x4320@60', 'dp:uhbr20x4', true],
    ['7680x4320@60', 'dp:uhbr10x4', false],
    ['1920x1080@60', 'hdmi:tmds-10.2', true],
    // VIC 97 is 594 MHz (CTA-861): it fits 600 MHz and not 340
    ['3840x2160@60', 'hdmi:tmds-18', true],
    ['3840x2160@60', 'hdmi:tmds-10.2', false],
    ['3840x2160@60 10 bit', 'hdmi:tmds-18', false],
    ['3840x2160@60 10 bit 4:2:2', 'hdmi:tmds-18', true],
    ['3840x2160@60 4:2:0', 'hdmi:tmds-10.2', true],
    ['3840x2160@120 10 bit', 'hdmi:frl-48', true],
  ])('%s on %s: %s', (text, spec, fits) => {
    expect(fitPicture(mode(text), link(spec), plain).fits).toBe(fits)
  })

  remembered('VESA DSC')('with compression where both ends have it, to 8 bits a pixel and 3:1 at most', () => {
    const eightK = fitPicture(mode('7680x4320@60'), link('dp:hbr3x4'), both)
    expect(eightK).toMatchObject({ fits: true, compressedBits: 12.5 })
    expect(fitPicture(mode('7680x4320@120'), link('dp:hbr3x4'), both).fits).toBe(false)
    expect(fitPicture(mode('7680x4320@60 16 bit'), link('dp:hbr3x4'), both).fits).toBe(false)
    expect(fitPicture(mode('3840x2160@120'), link('hdmi:tmds-18'), both).fits).toBe(false)
    expect(fitPicture(mode('3840x2160@60'), link('dp:hbr3x4'), both).compressedBits).toBeNull()
  })

  ours('a faster link or more lanes never fits less', () => {
    const modes = fc.record({
      width: fc.integer({ min: 640, max: 8000 }),
      height: fc.integer({ min: 480, max: 4400 }),
      refresh: fc.integer({ min: 24, max: 240 }),
      bits: fc.constantFrom(8 as const, 10 as const),
      chroma: fc.constantFrom('444' as const, '420' as const),
    })
    fc.assert(
      fc.property(modes, fc.boolean(), (given, compression) => {
        const dp = DISPLAYPORT_LINKS.map(
          (name) => fitPicture(given, { family: 'displayport', link: name, lanes: 4 }, { compression }).fits,
        )
        expect([...dp].sort()).toEqual(dp)
        for (const { need, have } of HDMI_LEVELS.map((level) =>
          fitPicture(given, { family: 'hdmi', level }, { compression }),
        )) {
          expect(Number.isFinite(need) && Number.isFinite(have)).toBe(true)
        }
      }),
    )
  })
})

describe('what fits instead', () => {
  const given = (text: string, spec: string) =>
    alternatives(mode(text), link(spec), plain).map((one) => [one.concession, formatPictureMode(one.mode)])
  ours('is nothing where the mode fits', () => {
    expect(given('3840x2160@60', 'dp:hbr3x4')).toEqual([])
  })
  ours('gives up one thing at a time, what is missed least first', () => {
    expect(given('3840x2160@144 10 bit', 'dp:hbr3x4')).toEqual([
      ['compression', '3840x2160@144 10 bit'],
      ['lower refresh', '3840x2160@90 10 bit'],
      ['less colour', '3840x2160@144 10 bit 4:2:0'],
      ['smaller picture', '3440x1440@144 10 bit'],
    ])
    expect(given('3840x2160@60 10 bit', 'hdmi:tmds-18')[0]).toEqual(['fewer bits', '3840x2160@60'])
  })
  ours('high dynamic range goes with its bits, and colour is given up before it (4:2:2 has room for 10 bits)', () => {
    expect(given('3840x2160@60 HDR', 'hdmi:tmds-18')).toEqual([
      ['fewer bits', '3840x2160@60'],
      ['lower refresh', '3840x2160@30 10 bit HDR'],
      ['less colour', '3840x2160@60 10 bit 4:2:2 HDR'],
      ['smaller picture', '3440x1440@60 10 bit HDR'],
    ])
    const less = [...lesserModes(mode('3840x2160@60 12 bit HDR'))].map((each) => formatPictureMode(each.mode))
    expect(less.slice(0, 3)).toEqual(['3840x2160@60 12 bit', '3840x2160@60 10 bit HDR', '3840x2160@60'])
    for (const text of less) expect(parsePictureMode(text).ok).toBe(true)
  })
  ours('always fits', () => {
    for (const spec of ['dp:rbrx1', 'dp:hbr2x2', 'hdmi:frl-24']) {
      for (const { fit, concession } of alternatives(mode('7680x4320@120 12 bit'), link(spec), plain)) {
        expect(fit.fits).toBe(true)
        expect(CONCESSIONS).toContain(concession)
      }
    }
  })
})

describe('several displays on one link', () => {
  // Linux DRM unit test, drm_dp_mst_calc_pbn
  ours.each([
    [154_000, 30, 689],
    [234_000, 30, 1047],
    [297_000, 24, 1063],
  ])('%d kHz at %d bits is PBN %d', (kilohertz, bits, pbn) => {
    expect(payloadBandwidthNumber(kilohertz, bits)).toBe(pbn)
  })
  remembered('HDMI')('HDMI carries 8 bits a colour at least: a 6 bit picture costs what an 8 bit one does', () => {
    for (const level of ['hdmi:tmds-10.2', 'hdmi:frl-24'])
      expect(fitPicture({ ...mode('3840x2160@60'), bits: 6 }, link(level), { compression: false }).need).toBe(
        fitPicture(mode('3840x2160@60'), link(level), { compression: false }).need,
      )
  })
  publishedIn('Linux DRM unit test of time slots')(
    'one slot of HBR2 x4 is 40 PBN, and 63 of 64 are there for pictures',
    () => {
      const spec = link('hbr2x4') as Extract<LinkSpec, { family: 'displayport' }>
      const three = sharePictures(spec, Array(4).fill({ mode: mode('2560x1440@60'), compression: false }))
      expect(three.slots).toBe(63)
      expect(three.shares.map(({ slots, fits }) => [slots, fits])).toEqual([
        [21, true],
        [21, true],
        [21, true],
        [21, false],
      ])
      expect(three.used).toBe(63)
    },
  )
  ours('a picture whose ends compress takes the slots that are left, and all compress where more get through', () => {
    const spec = link('hbr2x4') as Extract<LinkSpec, { family: 'displayport' }>
    const four = sharePictures(spec, Array(4).fill({ mode: mode('2560x1440@60'), compression: true }))
    expect(four.shares.every(({ fits }) => fits)).toBe(true)
    const mixed = sharePictures(spec, [
      { mode: mode('3840x2160@60'), compression: false },
      { mode: mode('2560x1440@60'), compression: true },
    ])
    expect(mixed.shares.map(({ compressedBits }) => compressedBits !== null)).toEqual([false, true])
    expect(mixed.shares[1]?.compressedBits).toBeGreaterThanOrEqual(8)
    expect(mixed.used).toBeLessThanOrEqual(63)
  })
})
