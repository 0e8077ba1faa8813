import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { LINK_MODES, type LinkMode } from '../standards/link-modes'
import { type Trial, trialOf, withoutRepeats } from './trials'

const trial = (more: Partial<Trial>): Trial => ({
  basis: 'measured',
  at: '2026-04-01T09:00:00.000Z',
  tried: 'usb4-40',
  cameUp: 'usb4-40',
  ...more,
})

describe('what trials say', () => {
  it('a pass counts for its own mode only', () => {
    expect(trialOf([trial({})], 'usb4-40', undefined)?.passed).toBe(true)
    expect(trialOf([trial({})], 'usb4-20', undefined)).toBeNull()
  })
  it('a link that came up lower rules out all in between', () => {
    const fell = [trial({ cameUp: 'usb2' })]
    expect(trialOf(fell, 'gen2x1', undefined)?.passed).toBe(false)
    expect(trialOf([trial({ tried: 'gen2x1', cameUp: 'usb2' })], 'gen1x2', undefined)?.passed).toBe(false)
    expect(trialOf([trial({ tried: 'gen1x1', cameUp: 'usb2' })], 'gen2x1', undefined)?.passed).toBe(false)
    expect(trialOf(fell, 'usb2', undefined)?.passed).toBe(true)
  })
  it('a drop in a soak rules out nothing below the mode it dropped in; nothing at all rules out everything below', () => {
    expect(trialOf([trial({ basis: 'soaked', cameUp: null })], 'usb4-20', undefined)).toBeNull()
    expect(trialOf([trial({ basis: 'soaked', cameUp: null })], 'usb4-40', undefined)?.passed).toBe(false)
    expect(trialOf([trial({ cameUp: null })], 'usb2', undefined)?.passed).toBe(false)
  })
  it('counts on the controller it was made on, or on any where none was noted', () => {
    const onCard = [trial({ controller: 'card' })]
    expect(trialOf(onCard, 'usb4-40', 'card')?.passed).toBe(true)
    expect(trialOf(onCard, 'usb4-40', 'board')).toBeNull()
    expect(trialOf([trial({})], 'usb4-40', 'board')?.passed).toBe(true)
  })
  it('what fails rules out all that asks as much of the same pairs, by whatever name', () => {
    const verdicts = (cameUp: LinkMode | null, tried: LinkMode, basis = 'soaked') =>
      LINK_MODES.filter(
        (mode) => trialOf([trial({ basis, tried, cameUp } as never)], mode, undefined)?.passed === false,
      )
    expect(verdicts('tbt3-20', 'tbt3-40')).toEqual(['usb4-20', 'tbt3-40', 'usb4-40', 'usb4-80'])
    expect(verdicts(null, 'tbt3-40')).toEqual(['tbt3-40', 'usb4-40', 'usb4-80'])
    expect(verdicts('gen1x1', 'gen2x1')).toEqual([
      'gen1x2',
      'gen2x1',
      'gen2x2',
      'tbt3-20',
      'usb4-20',
      'tbt3-40',
      'usb4-40',
      'usb4-80',
    ])
    expect(verdicts('usb4-40', 'usb4-40')).toEqual([])
  })
  it('the latest counts, but a shorter look never clears what a longer soak dropped', () => {
    const dropped = trial({ basis: 'soaked', cameUp: null, seconds: 70 })
    const look = (seconds: number) => trial({ basis: seconds < 60 ? 'measured' : 'soaked', seconds })
    const passed = (...trials: Trial[]) => trialOf(trials, 'usb4-40', undefined)?.passed
    expect(passed(look(900), dropped)).toBe(false)
    expect(passed(dropped, look(45))).toBe(false)
    expect(passed(dropped, look(60))).toBe(false)
    expect(passed(dropped, look(70))).toBe(true)
    // a second drop, sooner, does not make the first one easier to clear
    expect(passed(dropped, trial({ basis: 'soaked', cameUp: null, seconds: 50 }), look(60))).toBe(false)
    // what came up lower is cleared by any look that comes up as it should
    expect(passed(trial({ cameUp: 'usb2' }), look(5))).toBe(true)
  })
  it('without those that a later one repeats, they say the same', () => {
    const any = fc.record({
      basis: fc.constantFrom('measured', 'soaked'),
      tried: fc.constantFrom(...LINK_MODES),
      cameUp: fc.option(fc.constantFrom(...LINK_MODES)),
      seconds: fc.option(fc.constantFrom(30, 60, 90), { nil: undefined }),
      controller: fc.constantFrom('board', 'card', undefined),
    })
    fc.assert(
      fc.property(fc.array(any, { maxLength: 8 }), fc.constantFrom(...LINK_MODES), (given, mode) => {
        const trials = given.map((each, place) => trial({ ...each, at: `2026-04-01T09:00:0${place}.000Z` } as never))
        for (const controller of ['board', 'card', undefined])
          expect(trialOf(withoutRepeats(trials), mode, controller)?.passed).toBe(
            trialOf(trials, mode, controller)?.passed,
          )
      }),
      { numRuns: 400 },
    )
  })
})
