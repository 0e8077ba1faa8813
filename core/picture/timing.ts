import type { PictureMode } from '../plan/need'
import type { BitsPerSecond } from '../quantity/rate'
import { published, type Source } from '../standards/source'

export type Timing = { pixelClockHz: number; hTotal: number; vTotal: number; refreshHz: number }

export const timingSource: Source = published('VESA CVT 1.2, reduced blanking v2')

const H_BLANK = 80
const MIN_V_BLANK_US = 460
const V_SYNC = 8
const V_BACK_PORCH = 6
const MIN_V_FRONT_PORCH = 1
const CLOCK_STEP_HZ = 1000

/**
 * The timing of a mode by VESA CVT 1.2 with reduced blanking v2, the blanking computers use for digital displays.
 *
 * @example reducedBlankingV2({ width: 3840, height: 2160, refresh: 60 }).pixelClockHz // 522614000
 */
export function reducedBlankingV2({
  width,
  height,
  refresh,
}: Pick<PictureMode, 'width' | 'height' | 'refresh'>): Timing {
  const linePeriodUs = (1e6 / refresh - MIN_V_BLANK_US) / height
  const blankLines = Math.floor(MIN_V_BLANK_US / linePeriodUs) + 1
  const vTotal = height + Math.max(blankLines, V_BACK_PORCH + V_SYNC + MIN_V_FRONT_PORCH)
  const hTotal = width + H_BLANK
  const pixelClockHz = Math.floor((refresh * vTotal * hTotal) / CLOCK_STEP_HZ) * CLOCK_STEP_HZ
  return { pixelClockHz, hTotal, vTotal, refreshHz: pixelClockHz / (hTotal * vTotal) }
}

const samplesPerPixel: Record<PictureMode['chroma'], number> = { '444': 3, '422': 2, '420': 1.5 }

/** What a picture asks of a link: pixel clock times bits per pixel, without compression. */
export function streamRate(mode: PictureMode): BitsPerSecond {
  return reducedBlankingV2(mode).pixelClockHz * mode.bits * samplesPerPixel[mode.chroma]
}
