import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { readEdid } from '../../core/identity/edid'
import type { Edid } from '../../core/identity/edid-shape'
import { ctaFormats } from '../../core/standards/cta-861'
import { hdmiLink } from '../../core/standards/picture-links'
import * as build from '../support/edid-builder'
import { cases } from '../support/laws'
import { printedBy } from '../support/reference-program'

// Debian's edid-decode reads the same bytes by itself. The bytes are made by a builder that shares no code with the reader.

const decoded = (bytes: Uint8Array): string =>
  printedBy('edid-decode', 'edid-decode', ['-s'], { input: bytes, anyEnd: true })

type Line = { width: number; height: number; interlaced: boolean; refresh: number }
const linesOf = (printed: string): Line[] =>
  [...printed.matchAll(/(\d+)x(\d+)(i?)\s+([\d.]+) Hz/g)].map(([, width, height, i, refresh]) => ({
    width: Number(width),
    height: Number(height),
    interlaced: i === 'i',
    refresh: Number(refresh),
  }))

const read = (bytes: Uint8Array): Edid => {
  const answer = readEdid(bytes)
  if (!answer.ok) throw new Error(answer.problem)
  return answer.value
}

/** Modes that are said by a code have the refresh of the code, where the reference works out that of the timing. */
const sameMode = (ours: Edid['modes'][number], theirs: Line, near = nearness(ours)): boolean =>
  ours.width === theirs.width &&
  ours.height === theirs.height &&
  (ours.interlaced ?? false) === theirs.interlaced &&
  Math.abs(ours.refresh - theirs.refresh) < near
const LOOSE = 1
const nearness = ({ from }: Edid['modes'][number]): number =>
  /detailed|VIC|timing (I|II|VII)$/.test(from) ? 0.01 : LOOSE

function compare(bytes: Uint8Array): { edid: Edid; printed: string } {
  const edid = read(bytes)
  const printed = decoded(bytes)
  // the reader passes over interlaced formats that are said by a code
  const theirs = linesOf(printed).filter(({ interlaced }) => !interlaced || edid.modes.some((mode) => mode.interlaced))
  for (const mode of edid.modes)
    expect(
      theirs.some((line) => sameMode(mode, line)),
      `ours alone: ${JSON.stringify(mode)}\n${printed}`,
    ).toBe(true)
  for (const line of theirs)
    expect(
      edid.modes.some((mode) => sameMode(mode, line, LOOSE)),
      `theirs alone: ${JSON.stringify(line)}\n${printed}`,
    ).toBe(true)
  const name = /Display Product Name: '(.*)'/.exec(printed)?.[1]
  expect(edid.name?.trim() ?? undefined).toBe(name?.trim())
  const bits = /Bits per primary color channel: (\d+)/.exec(printed)?.[1]
  expect(edid.bits === null ? undefined : String(edid.bits)).toBe(bits)
  const range = /Monitor ranges[^:]*: (\d+)-(\d+) Hz V, (\d+)-(\d+) kHz H(?:, max dotclock (\d+) MHz)?/.exec(printed)
  expect(
    edid.range &&
      [...edid.range.vertical, ...edid.range.horizontal, edid.range.maxClockMHz].map((each) => each ?? undefined),
  ).toEqual(range ? range.slice(1, 6).map((each) => (each === undefined ? undefined : Number(each))) : null)
  const tmds =
    /Maximum TMDS Character Rate: (\d+) MHz/.exec(printed)?.[1] ?? /Maximum TMDS clock: (\d+) MHz/.exec(printed)?.[1]
  if (tmds) expect(edid.hdmi?.maxTmdsMHz).toBe(Number(tmds))
  const badSums = (printed.match(/^ *Checksum: 0x[0-9a-f]+ \(should be/gim) ?? []).length
  expect(edid.faults.filter((fault) => fault.includes('checksum')).length).toBe(badSums)
  return { edid, printed }
}

const HD: build.Detailed = { clock: 14850, width: 1920, hBlank: 280, height: 1080, vBlank: 45 }
const UHD: build.Detailed = { clock: 53325, width: 3840, hBlank: 160, height: 2160, vBlank: 62 }
const WIDE: build.Detailed = { clock: 31975, width: 3440, hBlank: 160, height: 1440, vBlank: 41 }
const INTERLACED: build.Detailed = { clock: 7425, width: 1920, hBlank: 280, height: 540, vBlank: 22, interlaced: true }

describe('what a display says of itself, as edid-decode reads it', () => {
  it('an analogue display of old', () => {
    const { edid } = compare(
      build.edid({
        revision: 3,
        input: 0x0e,
        features: 0x0a,
        established: [0xbf, 0xef, 0x80],
        standard: [
          [0x61, 0x40],
          [0x81, 0x80],
          [0xa9, 0x40],
        ],
        descriptors: [
          build.detailed({ clock: 10800, width: 1280, hBlank: 408, height: 1024, vBlank: 42 }),
          build.nameOf('Old glass'),
          build.rangeOf([50, 75], [30, 81], 140),
        ],
      }),
    )
    expect(edid).toMatchObject({ input: 'analogue', name: 'Old glass', preferred: { width: 1280, height: 1024 } })
  })
  it.each([
    [0xa5, 'DisplayPort', 8],
    [0xb5, 'DisplayPort', 10],
    [0xc5, 'DisplayPort', 12],
    [0x91, 'DVI', 6],
    [0xa2, 'HDMI', 8],
    [0xd5, 'DisplayPort', 14],
    [0xe5, 'DisplayPort', 16],
  ])('a digital input 0x%s: %s at %d bits', (input, kind, bits) => {
    const { edid } = compare(
      build.edid({ input, descriptors: [build.detailed(UHD), build.nameOf('Chart 27'), build.detailed(WIDE)] }),
    )
    expect(edid).toMatchObject({ input: kind, bits, preferred: { width: 3840, height: 2160 } })
    expect(edid.preferred?.refresh).toBeCloseTo(59.997, 2)
  })
  it('every code of CTA-861 that Hallway knows, in short descriptors', () => {
    const codes = ctaFormats.map(([vic]) => vic)
    for (let at = 0; at < codes.length; at += 28)
      compare(
        build.edid({
          input: 0xa2,
          descriptors: [build.detailed(HD)],
          extensions: [build.cta([[2, codes.slice(at, at + 28)]])],
        }),
      )
  })
  it('takes 340 million characters a second of an HDMI block, 600 of one of HDMI 2.0, and finds more wrong', () => {
    const faultsOf = (...blocks: [number, number[]][]): string =>
      printedBy('edid-decode', 'edid-decode', ['--check'], {
        input: build.edid({
          input: 0xa2,
          descriptors: [build.detailed(UHD), build.nameOf('Hall screen')],
          extensions: [build.cta([[2, [16, 97]], ...blocks])],
        }),
        anyEnd: true,
      })
    const megahertz = (level: 'tmds-10.2' | 'tmds-18'): number => hdmiLink[level].payload / 24 / 1e6
    // the blocks tell it in steps of 5 MHz
    const first = 'HDMI VSDB Max TMDS rate is > 340'
    expect(faultsOf(build.hdmi(0x38, megahertz('tmds-10.2')))).not.toContain(first)
    expect(faultsOf(build.hdmi(0x38, megahertz('tmds-10.2') + 5))).toContain(first)
    const later = 'Max TMDS rate is > 0 and <= 340 or > 600'
    const forum = (clock: number) => faultsOf(build.hdmi(0x38, 300), build.forum(clock, 0, false))
    expect(forum(megahertz('tmds-18'))).not.toContain(later)
    expect(forum(megahertz('tmds-18') + 5)).toContain(later)
    expect(forum(megahertz('tmds-10.2'))).toContain(later)
  })
  it.each([
    [1, 9],
    [2, 18],
    [3, 24],
    [4, 32],
    [5, 40],
    [6, 48],
  ])('fixed rate link %d of HDMI is %d Gb/s', (code, gbps) => {
    const { edid, printed } = compare(
      build.edid({
        input: 0xa2,
        descriptors: [build.detailed(UHD), build.nameOf('Hall screen')],
        extensions: [
          build.cta([[2, [16, 97, 118]], build.hdmi(0x38, 300, [1, 2]), build.forum(600, code, true), [7, [14, 101]]]),
        ],
      }),
    )
    expect(edid.hdmi).toMatchObject({ maxTmdsMHz: 600, frlGbps: gbps, compression: true, bits: 12 })
    const told = /^ *Max Fixed Rate Link: (.*)$/m.exec(printed)?.[1] ?? ''
    const [, rate, lanes] = [...told.matchAll(/(\d+) Gbps (?:per lane )?on (\d) lanes/g)].at(-1) ?? []
    expect(gbps).toBe(Number(rate) * Number(lanes))
    expect(printed).toContain('Supports VESA DSC 1.2a compression')
    expect(edid.chromas).toContain('420')
  })
  it.each([
    [0x01, false],
    [0x03, false],
    [0x05, true],
    [0x09, true],
    [0x0d, true],
  ])('high dynamic range by its transfer functions, %s: %s', (functions, takes) => {
    const { edid, printed } = compare(
      build.edid({
        input: 0xb5,
        descriptors: [build.detailed(UHD)],
        extensions: [build.cta([[7, [6, functions, 1]]])],
      }),
    )
    expect(edid.hdr).toBe(takes)
    expect(/SMPTE ST2084|Hybrid Log-Gamma/.test(printed)).toBe(takes)
  })
  it('two and three extensions, interlaced timings, what a maker keeps to himself', () => {
    compare(
      build.edid({
        input: 0xa2,
        descriptors: [build.detailed(HD), build.detailed(INTERLACED)],
        extensions: [
          build.cta([[2, [4, 16, 31, 0x80 | 34]], build.hdmi(0x10, 225), [3, [1, 2, 3, 4]]], [INTERLACED, WIDE]),
          build.cta([[2, [63, 95]]], [UHD]),
          build.displayId(0x13, [[0x03, 0, build.displayIdDetailed({ ...WIDE, clock: 60000 })]]),
        ],
      }),
    )
  })
  it('codes of CVT, established timings III, more standard timings', () => {
    compare(
      build.edid({
        input: 0xa5,
        descriptors: [
          build.detailed(HD),
          build.establishedThree([0xff, 0xff, 0xff, 0xff, 0xff, 0xf0]),
          build.cvtCodes([
            [0x1b, 0x24, 0x28],
            [0x57, 0x28, 0x29],
          ]),
        ],
        standard: [
          [0xd1, 0xc0],
          [0xb3, 0x00],
          [0x81, 0xc0],
        ],
      }),
    )
  })
  it('DisplayID 1.3 and 2.0: every kind of timing that is read, and tiles', () => {
    const { edid } = compare(
      build.edid({
        input: 0xb5,
        descriptors: [build.detailed(HD)],
        extensions: [
          build.displayId(0x13, [
            [
              0x03,
              0,
              build.displayIdDetailed({ clock: 93300, width: 5120, hBlank: 160, height: 2880, vBlank: 82 }, true),
            ],
            [0x12, 0, build.tiles(2, 1, 2560, 2880)],
          ]),
        ],
      }),
    )
    expect(edid.preferred).toMatchObject({ width: 5120, height: 2880 })
    expect(edid.tiles).toEqual({ across: 2, down: 1, width: 2560, height: 2880 })
    compare(
      build.edid({
        input: 0xb5,
        descriptors: [build.detailed(HD)],
        extensions: [
          build.displayId(0x20, [
            [0x22, 0, build.displayIdDetailed({ clock: 1075804, width: 3840, hBlank: 80, height: 2160, vBlank: 127 })],
            [0x24, 0, [...build.sizedTiming(2560, 1440, 120), ...build.sizedTiming(1920, 1200, 60)]],
          ]),
        ],
      }),
    )
  })
  it('bytes that are wrong are told, and the rest is read', () => {
    const good = build.edid({
      input: 0xa2,
      descriptors: [build.detailed(UHD), build.nameOf('Hurt')],
      extensions: [build.cta([[2, [16, 97]]])],
    })
    for (const at of [9, 60, 100, 127, 140, 255]) {
      const hurt = Uint8Array.from(good)
      hurt[at] = ((hurt[at] ?? 0) + 7) % 256
      expect(
        read(hurt).faults.some((fault) => fault.includes('checksum')),
        String(at),
      ).toBe(true)
    }
    expect(read(good.subarray(0, 128)).faults).toEqual(['It promises 1 extension, and none is there.'])
    const many = build.edid({ input: 0xa2, descriptors: [build.detailed(HD)], promised: 255 })
    expect(read(many)).toMatchObject({
      faults: ['It promises 255 extensions, and none is there.'],
      modes: [{ width: 1920 }],
    })
  })
  it('a hundred more, made up of all of it at random', () => {
    const detailed = fc
      .constantFrom(HD, UHD, WIDE, { clock: 25175 / 10, width: 640, hBlank: 160, height: 480, vBlank: 45 })
      .map((timing) => ({ ...timing, clock: Math.round(timing.clock) }))
    const known = ctaFormats.map(([vic]) => vic)
    const extension = fc.oneof(
      fc
        .tuple(
          fc.uniqueArray(fc.constantFrom(...known), { minLength: 1, maxLength: 20 }),
          fc.array(detailed, { maxLength: 2 }),
        )
        .map(([vics, timings]) => build.cta([[2, vics], build.hdmi(0x30, 340)], timings)),
      fc
        .tuple(detailed, fc.boolean())
        .map(([timing, first]) => build.displayId(0x13, [[3, 0, build.displayIdDetailed(timing, first)]])),
      fc
        .tuple(fc.integer({ min: 80, max: 480 }), fc.integer({ min: 60, max: 240 }), fc.constantFrom(50, 60, 75, 120))
        .map(([width, height, refresh]) =>
          build.displayId(0x20, [[0x24, 0, build.sizedTiming(width * 8, height * 9, refresh)]]),
        ),
    )
    const made = fc
      .record({
        input: fc.constantFrom(0xa5, 0xb5, 0xa2, 0x91, 0x80, 0x0e),
        timings: fc.array(detailed, { minLength: 1, maxLength: 2 }),
        established: fc.tuple(fc.nat(255), fc.constantFrom(...[0xef, 0x21, 0x0c, 0]), fc.constantFrom(0, 0x80)),
        extensions: fc.array(extension, { maxLength: 3 }),
      })
      .map(({ input, timings, established, extensions }) =>
        build.edid({
          input,
          established,
          descriptors: [...timings.map(build.detailed), build.nameOf('Made up')],
          extensions,
        }),
      )
    fc.assert(
      fc.property(made, (bytes) => {
        compare(bytes)
      }),
      { numRuns: cases(100) },
    )
  })
  it('never fails on bytes of any kind', () => {
    fc.assert(
      fc.property(fc.uint8Array({ minLength: 0, maxLength: 600 }), fc.boolean(), (bytes, headed) => {
        if (headed) bytes.set([0, 255, 255, 255, 255, 255, 255, 0].slice(0, bytes.length))
        const answer = readEdid(bytes)
        if (!answer.ok) expect(answer.problem).not.toBe('')
        else for (const mode of answer.value.modes) expect(mode.refresh).toBeGreaterThan(0)
      }),
      { numRuns: cases(500) },
    )
  })
})
