import { describe, expect, it } from 'vitest'
import { cvtTiming, streamRate } from './timing'

const at = (width: number, height: number, refresh: number) => cvtTiming({ width, height, refresh })

describe('reduced blanking v2', () => {
  // VESA CVT 1.2, spot values; tests/reference/timing.test.ts runs a reference program over a grid
  it.each([
    [1920, 1080, 60, 133.32],
    [2560, 1440, 60, 234.59],
    [3840, 2160, 60, 522.614],
    [3840, 2160, 120, 1075.804],
    [5120, 2880, 60, 924.144],
    [7680, 4320, 60, 2068.66],
  ])('%dx%d@%d is %d MHz', (width, height, refresh, megahertz) => {
    expect(at(width, height, refresh).pixelClockHz).toBe(Math.round(megahertz * 1e6))
  })

  it('tells the totals and the refresh that really results', () => {
    expect(at(3840, 2160, 60)).toMatchObject({ hTotal: 3920, vTotal: 2222 })
    expect(at(3840, 2160, 60).refreshHz).toBeCloseTo(59.99995, 4)
  })
})

it('a stream is pixel clock times bits per pixel', () => {
  const mode = { width: 3840, height: 2160, refresh: 60, bits: 8, chroma: '444' } as const
  expect(streamRate(mode)).toBe(522_614_000 * 24)
  expect(streamRate({ ...mode, chroma: '422' })).toBe(522_614_000 * 16)
  expect(streamRate({ ...mode, chroma: '420' })).toBe(522_614_000 * 12)
  expect(streamRate({ ...mode, bits: 10 })).toBe(522_614_000 * 30)
})
