import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { cases } from '../../tests/support/laws'
import { LINK_MODES, type LinkMode } from '../standards/link-modes'
import type { Here } from './spot'
import { implies, seenOfMode, type Trial, type TriedLead, withoutRepeats } from './trials'

const trial = (more: Partial<Trial>): Trial => ({
  basis: 'measured',
  at: '2026-04-01T09:00:00.000Z',
  tried: 'usb4-40',
  cameUp: 'usb4-40',
  spot: {},
  ...more,
})
const here: Here = { port: 'pc/1', controller: 'board', setup: '', neighbours: false }
const anything: TriedLead = { ought: () => true, construction: 'passive' }
const nothing: TriedLead = { ought: () => false, construction: 'passive' }
const said = (trials: Trial[], mode: LinkMode, lead = anything) =>
  seenOfMode(trials, mode, lead, here).here?.says ?? null

describe('what trials say', () => {
  it('a pass counts for its mode and all that ask no more of the same pairs', () => {
    expect(said([trial({ seconds: 60 })], 'usb4-40')).toBe('holds')
    expect(said([trial({ seconds: 60 })], 'usb4-20')).toBe('holds')
    expect(said([trial({ seconds: 59 })], 'gen2x1')).toBe('comes up')
    expect(said([trial({ tried: 'usb4-20', cameUp: 'usb4-20', seconds: 60 })], 'usb4-40')).toBeNull()
  })
  it('USB 2.0 has wires of its own: neither says anything of the other', () => {
    expect(said([trial({ seconds: 60 })], 'usb2')).toBeNull()
    expect(said([trial({ tried: 'usb2', cameUp: null })], 'gen1x1')).toBeNull()
    expect(said([trial({ tried: 'gen2x1', cameUp: null })], 'usb2')).toBeNull()
    expect(said([trial({ tried: 'usb2', cameUp: null })], 'usb2')).toBe('fails')
  })
  it('one lane says nothing of two, and a tunnel over an active lead nothing of plain USB (common practice)', () => {
    expect(implies('gen2x1', 'gen1x2', 'passive')).toBe(false)
    expect(implies('gen2x2', 'gen1x2', 'passive')).toBe(true)
    expect(implies('tbt3-40', 'gen1x1', 'active')).toBe(false)
    expect(implies('tbt3-40', 'usb4-40', 'active')).toBe(true)
  })
  it('what came up lower than it ought failed there; what came up as it ought failed in nothing', () => {
    const marked = (best: LinkMode): TriedLead => ({
      construction: 'passive',
      ought: (mode) => LINK_MODES.indexOf(mode) <= LINK_MODES.indexOf(best),
    })
    const fell = [trial({ tried: 'usb4-40', cameUp: 'gen1x1' })]
    expect(said(fell, 'gen2x1', marked('gen2x1'))).toBe('fails')
    expect(said(fell, 'usb4-40', marked('gen2x1'))).toBe('fails')
    expect(said(fell, 'gen2x1', marked('gen1x1'))).toBeNull()
    expect(said(fell, 'usb4-40', marked('gen1x1'))).toBeNull()
    expect(said(fell, 'gen2x1', nothing)).toBeNull()
    expect(said(fell, 'gen1x1', nothing)).toBe('comes up')
    // Thunderbolt at 20 Gb/s asks of its pairs what USB4 at 20 Gb/s asks
    expect(said([trial({ tried: 'tbt3-40', cameUp: 'tbt3-20' })], 'usb4-20')).toBe('comes up')
    expect(said([trial({ tried: 'tbt3-40', cameUp: 'tbt3-20' })], 'usb4-40')).toBe('fails')
  })
  it('a drop says nothing of what asks less, and fails what asks as much', () => {
    const drop = [trial({ basis: 'soaked', cameUp: null, seconds: 70 })]
    expect(said(drop, 'usb4-40')).toBe('drops')
    expect(said(drop, 'tbt3-40')).toBe('drops')
    expect(said(drop, 'usb4-20')).toBeNull()
  })
  it('the latest counts, but a shorter look never clears what a longer soak dropped', () => {
    const at = (second: number) => `2026-04-01T09:00:0${second}.000Z`
    const dropped = (second: number, seconds = 70) => trial({ basis: 'soaked', cameUp: null, seconds, at: at(second) })
    const look = (second: number, seconds: number) => trial({ seconds, at: at(second) })
    expect(said([look(1, 900), dropped(2)], 'usb4-40')).toBe('drops')
    expect(said([dropped(1), look(2, 45)], 'usb4-40')).toBe('drops')
    expect(said([dropped(1), look(2, 69)], 'usb4-40')).toBe('drops')
    expect(said([dropped(1), look(2, 70)], 'usb4-40')).toBe('holds')
    // a second drop, sooner, does not make the first one easier to clear
    expect(said([dropped(1), dropped(2, 50), look(3, 60)], 'usb4-40')).toBe('drops')
    // what came up lower is cleared by any look that comes up as it should
    expect(said([trial({ cameUp: 'usb2', at: at(1) }), look(2, 5)], 'usb4-40')).toBe('comes up')
    // of one moment the worse counts
    expect(said([look(1, 900), dropped(1)], 'usb4-40')).toBe('drops')
    // a short look after a long one takes nothing from it
    expect(said([look(1, 900), look(2, 5)], 'usb4-40')).toBe('holds')
  })
  it('tells this socket from others, and counts those', () => {
    const on = (port: string, cameUp: LinkMode | null, controller = 'board') =>
      trial({ cameUp, seconds: 60, spot: { port, controller } })
    const seen = (trials: Trial[]) => seenOfMode(trials, 'usb4-40', anything, here)
    expect(seen([on('pc/1', 'usb4-40')])).toMatchObject({ here: { says: 'holds' }, held: 0, failed: 0 })
    expect(seen([on('pc/2', 'usb4-40'), on('pc/3', 'usb4-40'), on('pc/4', 'usb2')])).toMatchObject({
      here: null,
      held: 2,
      failed: 1,
      heldOnController: 2,
    })
    expect(seen([on('pc/2', 'usb4-40', 'card')]).heldOnController).toBe(0)
    // where nobody noted the socket, its controller speaks for all of its sockets, and nothing noted for any
    expect(seen([trial({ spot: { controller: 'board' } })]).here?.says).toBe('comes up')
    expect(seen([trial({ spot: { controller: 'card' } })]).here).toBeNull()
    expect(seen([trial({})]).here?.says).toBe('comes up')
  })
  it('was seen before the computer changed, or with all else unplugged', () => {
    const spot = { port: 'pc/1', setup: 'driver 1' }
    const now = (setup: string, neighbours: boolean): Here => ({ ...here, setup, neighbours })
    expect(seenOfMode([trial({ spot })], 'usb4-40', anything, now('driver 2', false)).stale).toBe(true)
    expect(seenOfMode([trial({ spot })], 'usb4-40', anything, now('driver 1', false)).stale).toBe(false)
    const alone = [trial({ spot: { port: 'pc/1', alone: true } })]
    expect(seenOfMode(alone, 'usb4-40', anything, now('', false)).here?.says).toBe('comes up')
    expect(seenOfMode(alone, 'usb4-40', anything, now('', true))).toMatchObject({ here: null, held: 1 })
  })
})

describe('laws of trials', () => {
  const spots = fc.constantFrom<Trial['spot']>(
    {},
    { port: 'pc/1', controller: 'board' },
    { port: 'pc/2', controller: 'board' },
    { port: 'pc/3', controller: 'card' },
    { controller: 'board' },
    { port: 'pc/1', setup: 'driver 1' },
  )
  const any: fc.Arbitrary<Trial> = fc
    .record({
      basis: fc.constantFrom('measured' as const, 'soaked' as const),
      tried: fc.constantFrom(...LINK_MODES),
      cameUp: fc.option(fc.constantFrom(...LINK_MODES)),
      seconds: fc.constantFrom(undefined, 30, 60, 90),
      spot: spots,
      second: fc.integer({ min: 0, max: 4 }),
    })
    .map(({ second, seconds, ...rest }) =>
      trial({ ...rest, ...(seconds === undefined ? {} : { seconds }), at: `2026-04-01T09:00:0${second}.000Z` }),
    )
  const trials = fc.array(any, { maxLength: 7 })
  const mode = fc.constantFrom(...LINK_MODES)
  const lead = fc.constantFrom(anything, nothing, {
    ought: (each: LinkMode) => each !== 'usb4-80',
    construction: 'active',
  } as TriedLead)
  const rank = { drops: 0, fails: 0, none: 1, 'comes up': 2, holds: 3 } as const
  const worth = (given: Trial[], asked: LinkMode, by: TriedLead) =>
    rank[seenOfMode(given, asked, by, here).here?.says ?? 'none']

  it('without those that a later one repeats, they say the same', () => {
    fc.assert(
      fc.property(trials, mode, lead, (given, asked, by) => {
        const all = seenOfMode(given, asked, by, here)
        const few = seenOfMode(withoutRepeats(given), asked, by, here)
        expect({ ...few, here: few.here?.says }).toEqual({ ...all, here: all.here?.says })
      }),
      { numRuns: cases(2000) },
    )
  })
  it('the order in which they arrive never matters', () => {
    fc.assert(
      fc.property(trials, mode, lead, fc.nat(1000), (given, asked, by, turn) => {
        const shuffled = given
          .map((each, at) => ({ each, key: (at * 7919 + turn * 31) % 101 }))
          .sort((a, b) => a.key - b.key)
        const other = shuffled.map(({ each }) => each)
        expect(seenOfMode(other, asked, by, here).here?.says).toBe(seenOfMode(given, asked, by, here).here?.says)
        expect(withoutRepeats(other)).toEqual(withoutRepeats(given))
      }),
      { numRuns: cases(1000) },
    )
  })
  it('one more that held never worsens, and one more that failed never betters', () => {
    fc.assert(
      fc.property(trials, any, mode, lead, (given, more, asked, by) => {
        const passes = { ...more, cameUp: more.tried, seconds: 60 }
        expect(worth([...given, passes], asked, by)).toBeGreaterThanOrEqual(worth(given, asked, by))
        const drops: Trial = { ...more, cameUp: null, basis: 'soaked' }
        expect(worth([...given, drops], asked, by)).toBeLessThanOrEqual(worth(given, asked, by))
      }),
      { numRuns: cases(2000) },
    )
  })
})
