import { describe, expect, it } from 'vitest'
import { type CvtStandard, ctaTiming, cvtTiming } from '../../core/picture/timing'
import { ctaFormats } from '../../core/standards/cta-861'
import { printedBy } from '../support/reference-program'

// Debian's edid-decode and cvt compute timings by themselves: implementations nobody here wrote.

type Reference = { hTotal: number; vTotal: number; kilohertz: number }

function parse(printed: string, width: number, height: number): Reference {
  const clock = /([\d.]+) MHz/.exec(printed)
  const blank = /Hfront\s+(\d+) Hsync\s+(\d+) Hback\s+(\d+)[\s\S]*?Vfront\s+(\d+) Vsync\s+(\d+) Vback\s+(\d+)/.exec(
    printed,
  )
  if (!clock || !blank) throw new Error(`edid-decode printed something else: ${printed}`)
  const sum = (...at: number[]): number => at.reduce((total, index) => total + Number(blank[index]), 0)
  return { hTotal: width + sum(1, 2, 3), vTotal: height + sum(4, 5, 6), kilohertz: Math.round(Number(clock[1]) * 1000) }
}
const edidDecode = (...words: string[]): string => printedBy('edid-decode', 'edid-decode', words)

const SIZES = [
  [1024, 768],
  [1280, 720],
  [1280, 1024],
  [1600, 1200],
  [1920, 1080],
  [1920, 1200],
  [2560, 1440],
  [3440, 1440],
  [3840, 1600],
  [3840, 2160],
  [5120, 2880],
  [7680, 4320],
] as const
const RATES = [24, 30, 50, 60, 75, 90, 120, 144]
const versions: Record<CvtStandard, number> = { cvt: 0, 'cvt-rb1': 1, 'cvt-rb2': 2, 'cvt-rb3': 3 }

for (const [standard, version] of Object.entries(versions) as [CvtStandard, number][]) {
  describe(`${standard} against edid-decode`, () => {
    it.each(SIZES)('%dx%d at every refresh', (width, height) => {
      for (const refresh of RATES) {
        const ours = cvtTiming({ width, height, refresh }, standard)
        const reference = parse(
          edidDecode('--cvt', `w=${width},h=${height},fps=${refresh},rb=${version}`),
          width,
          height,
        )
        expect([refresh, ours.hTotal, ours.vTotal]).toEqual([refresh, reference.hTotal, reference.vTotal])
        // where the product lands on a clock step to the hertz, the reference's floating point may fall a step of 1 kHz below it
        const onStep = standard === 'cvt-rb2' && (refresh * ours.hTotal * ours.vTotal) % 1000 === 0
        expect([0, onStep ? 1 : 0]).toContain(ours.pixelClockHz / 1000 - reference.kilohertz)
      }
    })
  })
}

describe('CTA-861 formats against edid-decode', () => {
  const listed = edidDecode('--list-vics')
    .split('\n')
    .flatMap(
      (line) =>
        /^VIC\s+(\d+):\s+(\d+)x(\d+)\s/
          .exec(line)
          ?.slice(1)
          .map(Number)
          .reduce<number[][]>((one, value) => [[...(one[0] ?? []), value]], []) ?? [],
    )
  it('knows every progressive one and no other', () => {
    expect(ctaFormats.map(([vic]) => vic)).toEqual(listed.map(([vic]) => vic))
    expect(listed.length).toBeGreaterThan(100)
  })
  it.each(listed)('VIC %d, %dx%d', (vic, width, height) => {
    const reference = parse(edidDecode('--vic', String(vic)), width as number, height as number)
    const ours = ctaTiming(vic as number)
    expect(ours).toMatchObject({
      ok: true,
      value: {
        width,
        height,
        hTotal: reference.hTotal,
        vTotal: reference.vTotal,
        pixelClockHz: reference.kilohertz * 1000,
      },
    })
  })
})

describe('normal blanking against cvt, the modeline program', () => {
  it.each(SIZES)('%dx%d@60', (width, height) => {
    const printed = printedBy('cvt', 'xcvt', [String(width), String(height), '60'])
    const [clock, ...figures] = (/Modeline "\S+"\s+(.+?)\s+[-+]/.exec(printed)?.[1] ?? '').split(/\s+/).map(Number)
    const ours = cvtTiming({ width, height, refresh: 60 }, 'cvt')
    expect([ours.pixelClockHz / 1e6, ours.hTotal, ours.vTotal]).toEqual([clock, figures[3], figures[7]])
  })
})
