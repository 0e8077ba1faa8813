import { type Parsed, parsed, unreadable } from '../quantity/parsed'
import type { BitsPerSecond } from '../quantity/rate'
import { ctaFormats } from '../standards/cta-861'
import type { PictureMode } from '../vocabulary/need'

export type Timing = { pixelClockHz: number; hTotal: number; vTotal: number; refreshHz: number }

/** Ways to compute a timing: VESA CVT with normal blanking or one of its reduced blankings. */
export const CVT_STANDARDS = ['cvt', 'cvt-rb1', 'cvt-rb2', 'cvt-rb3'] as const
export type CvtStandard = (typeof CVT_STANDARDS)[number]

type Size = Pick<PictureMode, 'width' | 'height' | 'refresh'>

/** Widths are rounded down to whole character cells of 8 pixels, except in reduced blanking v2. */
const CELL = 8
const MIN_V_BLANK_US = 460
/** The shortest back porch: 7 lines since CVT 1.2, as the reference programs have it. */
const V_BACK = 7

type Blanking = {
  hBlank: number
  vFront: number
  vSync: (size: Size) => number
  vBack: number
  step: number
  cell: number
  round: (steps: number) => number
}

const reduced: Record<'cvt-rb1' | 'cvt-rb2' | 'cvt-rb3', Blanking> = {
  'cvt-rb1': {
    hBlank: 160,
    vFront: 3,
    vSync: syncByShape,
    vBack: V_BACK,
    step: 250_000,
    cell: CELL,
    round: Math.floor,
  },
  'cvt-rb2': { hBlank: 80, vFront: 1, vSync: () => 8, vBack: 6, step: 1000, cell: 1, round: Math.floor },
  'cvt-rb3': { hBlank: 80, vFront: 1, vSync: () => 8, vBack: 6, step: 250_000, cell: CELL, round: Math.ceil },
}

/**
 * The timing of a progressive mode by VESA CVT: normal blanking (for analogue displays), or reduced blanking v1, v2 (what computers
 * use for digital displays) or v3 (CVT 2.0, from memory); every one is checked against a reference program. Widths and heights in pixels, refresh in hertz.
 *
 * @example cvtTiming({ width: 3840, height: 2160, refresh: 60 }, 'cvt-rb2').pixelClockHz // 522614000
 */
export function cvtTiming(size: Size, standard: CvtStandard = 'cvt-rb2'): Timing {
  return standard === 'cvt' ? normalBlanking(size) : reducedBlanking(size, reduced[standard])
}

function reducedBlanking(size: Size, blanking: Blanking): Timing {
  const { refresh, height } = size
  const width = Math.floor(size.width / blanking.cell) * blanking.cell
  const linePeriodUs = (1e6 / refresh - MIN_V_BLANK_US) / height
  const blankLines = Math.floor(MIN_V_BLANK_US / linePeriodUs) + 1
  const vTotal = height + Math.max(blankLines, blanking.vFront + blanking.vSync(size) + blanking.vBack)
  const hTotal = width + blanking.hBlank
  const pixelClockHz = blanking.round((refresh * vTotal * hTotal) / blanking.step) * blanking.step
  return { pixelClockHz, hTotal, vTotal, refreshHz: pixelClockHz / (hTotal * vTotal) }
}

/** The standard's constants for normal blanking: gradient and offset of the ideal duty cycle, porches, sync and back porch time. */
const DUTY_OFFSET = 30
const DUTY_GRADIENT = 300
const LEAST_DUTY = 20
const SYNC_AND_BACK_US = 550
const V_FRONT = 3

const NORMAL_STEP_HZ = 250_000

function normalBlanking(size: Size): Timing {
  const { refresh, height } = size
  const width = Math.floor(size.width / CELL) * CELL
  const linePeriodUs = ((1 / refresh - SYNC_AND_BACK_US / 1e6) / (height + V_FRONT)) * 1e6
  const syncAndBack = Math.max(Math.floor(SYNC_AND_BACK_US / linePeriodUs) + 1, syncByShape(size) + V_BACK)
  const vTotal = height + syncAndBack + V_FRONT
  const duty = Math.max(LEAST_DUTY, DUTY_OFFSET - (DUTY_GRADIENT * linePeriodUs) / 1000)
  const hBlank = Math.floor((width * duty) / (100 - duty) / (2 * CELL)) * 2 * CELL
  const hTotal = width + hBlank
  const pixelClockHz = Math.floor((hTotal / linePeriodUs) * (1e6 / NORMAL_STEP_HZ)) * NORMAL_STEP_HZ
  return { pixelClockHz, hTotal, vTotal, refreshHz: pixelClockHz / (hTotal * vTotal) }
}

/** The width of the vertical sync tells a display the shape of the picture. */
function syncByShape({ width, height }: Size): number {
  const shapes: [number, number, number][] = [
    [4, 3, 4],
    [16, 9, 5],
    [16, 10, 6],
    [5, 4, 7],
    [15, 9, 7],
  ]
  const across = (w: number, h: number): number => CELL * Math.floor((height * w) / h / CELL)
  return shapes.find(([w, h]) => across(w, h) === Math.floor(width / CELL) * CELL)?.[2] ?? 10
}

/** The timing of a CTA-861 format by its video identification code, or the reason there is none. */
export function ctaTiming(vic: number): Parsed<Timing & { width: number; height: number }> {
  const row = ctaFormats.find(([code]) => code === vic)
  if (!row)
    return unreadable(`There is no progressive CTA-861 format ${vic}; codes run from 1 to ${ctaFormats.at(-1)?.[0]}.`)
  const [, width, height, hTotal, vTotal, kilohertz] = row
  const pixelClockHz = kilohertz * 1000
  return parsed({ width, height, pixelClockHz, hTotal, vTotal, refreshHz: pixelClockHz / (hTotal * vTotal) })
}

/** The CTA-861 timing a display on HDMI would use for a mode: the nominal size and refresh, or null where there is no such format. */
export function ctaTimingFor({ width, height, refresh }: Size): Timing | null {
  for (const [vic, w, h, hTotal, vTotal, kilohertz] of ctaFormats) {
    if (w !== width || h !== height) continue
    const actual = (kilohertz * 1000) / (hTotal * vTotal)
    if (Math.abs(actual - refresh) < 0.1) {
      const found = ctaTiming(vic)
      return found.ok ? found.value : null
    }
  }
  return null
}

const samplesPerPixel: Record<PictureMode['chroma'], number> = { '444': 3, '422': 2, '420': 1.5 }

export const bitsPerPixel = (mode: Pick<PictureMode, 'bits' | 'chroma'>): number =>
  mode.bits * samplesPerPixel[mode.chroma]

/** What a picture asks of a link: pixel clock times bits per pixel, without compression; by reduced blanking v2 unless told otherwise. */
export function streamRate(mode: PictureMode, timing: Timing = cvtTiming(mode)): BitsPerSecond {
  return timing.pixelClockHz * bitsPerPixel(mode)
}
