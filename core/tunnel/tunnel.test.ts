import { describe, expect } from 'vitest'
import { ours, practice, publishedIn } from '../../tests/support/figures'
import { parsePictureMode } from '../picture/mode-text'
import type { PictureMode } from '../vocabulary/need'
import { admitPictures, LADDER, type PictureEnds, tunnelOf } from './tunnel'

const mode = (text: string): PictureMode => {
  const read = parsePictureMode(text)
  if (!read.ok) throw new Error(read.problem)
  return read.value
}
const hbr3: PictureEnds = { link: 'hbr3', lanes: 4 }
const hbr2: PictureEnds = { link: 'hbr2', lanes: 4 }
const picture = (text: string, ends = hbr3) => ({ mode: mode(text), ends })

describe('the fall-back ladder', () => {
  publishedIn('Linux thunderbolt driver')('is that of the Linux thunderbolt driver up to HBR3', () => {
    const upToHbr3 = LADDER.filter((step) => !step.link.startsWith('uhbr')).map((step) =>
      Math.round(step.payload / 1e6),
    )
    expect(upToHbr3).toEqual([25920, 17280, 12960, 8640, 8640, 6480, 5184, 4320, 4320, 2592, 2160, 1296])
  })
})

describe('pictures in a tunnel', () => {
  practice('two 4K60 displays on 40 Gb/s: by whole link rate the second falls, by stream rate both fit', () => {
    const two = [picture('3840x2160@60'), picture('3840x2160@60')]
    const byLink = admitPictures('40', two, 'link')
    expect(byLink.pictures.map(({ fits, reserved }) => [fits, Math.round(reserved / 1e6)])).toEqual([
      [true, 25920],
      [false, 8640],
    ])
    expect(byLink.pictures[1]?.available).toBeCloseTo(36e9 - 25.92e9, 0)
    expect(admitPictures('40', two, 'stream').pictures.map(({ fits }) => fits)).toEqual([true, true])
  })
  ours('a display that only speaks HBR2 reserves less, and the second fits', () => {
    const plan = admitPictures('40', [picture('3840x2160@60', hbr2), picture('3840x2160@60', hbr2)], 'link')
    expect(plan.pictures.map(({ fits }) => fits)).toEqual([true, true])
  })
  ours('one that finds less than the lowest step is refused', () => {
    const plan = admitPictures('20', [picture('3840x2160@60', hbr2), picture('1920x1080@60')], 'link')
    expect(plan.pictures[1]).toMatchObject({ step: null, reserved: 0, fits: false })
  })
  ours('leave data what they do not send, and the way back whole', () => {
    const plan = admitPictures('40', [picture('3840x2160@60')], 'link')
    expect(plan.left.down).toBeCloseTo((40e9 * 128) / 132 - 522_614_000 * 24, 0)
    expect(plan.left.up).toBeCloseTo((40e9 * 128) / 132, 0)
    expect(admitPictures('120/40', [], 'link').left).toEqual({ down: 115.2e9, up: 38.4e9 })
  })
  ours('a picture more never leaves more for data', () => {
    const modes = ['3840x2160@60', '7680x4320@60', '1920x1080@240', '2560x1440@60']
    for (const tunnel of ['20', '40', '80', '120/40'] as const) {
      for (const policy of ['link', 'stream'] as const) {
        let before = Number.POSITIVE_INFINITY
        for (let count = 0; count <= modes.length; count += 1) {
          const { left } = admitPictures(
            tunnel,
            modes.slice(0, count).map((text) => picture(text)),
            policy,
          )
          expect(left.down).toBeLessThanOrEqual(before)
          before = left.down
        }
      }
    }
  })
  ours('are admitted to the tunnel the line rate makes', () => {
    expect([20e9, 40e9, 80e9].map(tunnelOf)).toEqual(['20', '40', '80'])
  })
})
