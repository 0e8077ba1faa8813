import { execFileSync } from 'node:child_process'
import { describe, expect, it } from 'vitest'
import { reducedBlankingV2 } from '../../core/picture/timing'

/** Debian's edid-decode computes CVT timings by itself: an implementation nobody here wrote. */
function byReference(
  width: number,
  height: number,
  refresh: number,
): { hTotal: number; vTotal: number; kilohertz: number } {
  const printed = execFileSync('edid-decode', ['--cvt', `w=${width},h=${height},fps=${refresh},rb=2`], {
    encoding: 'utf8',
  })
  const line = /(\d+)x(\d+)\s+([\d.]+) Hz\s+\S+\s+[\d.]+ kHz\s+([\d.]+) MHz/.exec(printed)
  const blank = /Hfront\s+(\d+) Hsync\s+(\d+) Hback\s+(\d+)[\s\S]*?Vfront\s+(\d+) Vsync\s+(\d+) Vback\s+(\d+)/.exec(
    printed,
  )
  if (!line || !blank) throw new Error(`edid-decode printed something else: ${printed}`)
  const sum = (...at: number[]): number => at.reduce((total, index) => total + Number(blank[index]), 0)
  return { hTotal: width + sum(1, 2, 3), vTotal: height + sum(4, 5, 6), kilohertz: Math.round(Number(line[4]) * 1000) }
}

const SIZES = [
  [1280, 720],
  [1920, 1080],
  [1920, 1200],
  [2560, 1440],
  [3440, 1440],
  [3840, 2160],
  [5120, 2880],
  [7680, 4320],
] as const
const RATES = [24, 30, 50, 60, 75, 90, 120, 144]

describe('reduced blanking v2 against edid-decode (VESA CVT 1.2)', () => {
  const grid = SIZES.flatMap(([width, height]) => RATES.map((refresh) => [width, height, refresh] as const))
  it.each(grid)('%dx%d@%d', (width, height, refresh) => {
    const ours = reducedBlankingV2({ width, height, refresh })
    const reference = byReference(width, height, refresh)
    expect([ours.hTotal, ours.vTotal]).toEqual([reference.hTotal, reference.vTotal])
    // where the product lands on a clock step to the hertz, the reference's floating point falls one step (1 kHz) below it
    const onStep = (refresh * ours.hTotal * ours.vTotal) % 1000 === 0
    expect(ours.pixelClockHz / 1000 - reference.kilohertz).toBeGreaterThanOrEqual(0)
    expect(ours.pixelClockHz / 1000 - reference.kilohertz).toBeLessThanOrEqual(onStep ? 1 : 0)
  })
})
