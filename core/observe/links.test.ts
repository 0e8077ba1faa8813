import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { cases } from '../../tests/support/laws'
import { type LinkTry, linksOf } from '../../tests/support/tried-links'
import { LINK_MODES, type LinkMode } from '../standards/link-modes'
import { type Asks, CAME } from './came'
import { basisOf, implies, seenAfter, seenOfMode, type TriedLead, talliesOf } from './links'
import type { Here } from './spot'

const trial = (more: Partial<LinkTry>): LinkTry => ({ tried: 'usb4-40', cameUp: 'usb4-40', ...more })
const here: Here = { port: 'pc/1', controller: 'board', setup: '', neighbours: false }
const asks: Asks = { least: 60, relied: 60, soak: 60 }
const anything: TriedLead = { ought: () => true, construction: 'passive', asks }
const nothing: TriedLead = { ought: () => false, construction: 'passive', asks }
const said = (tries: LinkTry[], mode: LinkMode, lead = anything) =>
  seenOfMode(linksOf(tries), mode, lead, here).here?.came ?? null

describe('what was tried of a link', () => {
  it('a pass counts for its mode and all that ask no more of the same pairs', () => {
    expect(said([trial({ seconds: 60 })], 'usb4-40')).toBe('held')
    expect(said([trial({ seconds: 60 })], 'usb4-20')).toBe('held')
    expect(said([trial({ seconds: 59 })], 'gen2x1')).toBe('came up')
    expect(said([trial({ tried: 'usb4-20', cameUp: 'usb4-20', seconds: 60 })], 'usb4-40')).toBeNull()
  })
  it('USB 2.0 has wires of its own: neither says anything of the other', () => {
    expect(said([trial({ seconds: 60 })], 'usb2')).toBeNull()
    expect(said([trial({ tried: 'usb2', cameUp: null })], 'gen1x1')).toBeNull()
    expect(said([trial({ tried: 'gen2x1', cameUp: null })], 'usb2')).toBeNull()
    expect(said([trial({ tried: 'usb2', cameUp: null })], 'usb2')).toBe('failed')
  })
  it('one lane says nothing of two, and a tunnel over an active lead nothing of plain USB (common practice)', () => {
    expect(implies('gen2x1', 'gen1x2', 'passive')).toBe(false)
    expect(implies('gen2x2', 'gen1x2', 'passive')).toBe(true)
    expect(implies('tbt3-40', 'gen1x1', 'active')).toBe(false)
    expect(implies('tbt3-40', 'usb4-40', 'active')).toBe(true)
  })
  it('what was tried and came up lower failed; between the two only what it ought to do did', () => {
    const marked = (best: LinkMode): TriedLead => ({
      construction: 'passive',
      ought: (mode) => LINK_MODES.indexOf(mode) <= LINK_MODES.indexOf(best),
      asks,
    })
    const fell = [trial({ tried: 'usb4-40', cameUp: 'gen1x1' })]
    expect(said(fell, 'gen2x1', marked('gen2x1'))).toBe('failed')
    expect(said(fell, 'gen2x1', marked('gen1x1'))).toBeNull()
    expect(said(fell, 'gen2x1', nothing)).toBeNull()
    // whoever tries it sees it fail, whatever it ought to do
    for (const lead of [marked('gen2x1'), marked('gen1x1'), nothing]) expect(said(fell, 'usb4-40', lead)).toBe('failed')
    expect(said(fell, 'gen1x1', nothing)).toBe('came up')
    // Thunderbolt at 20 Gb/s asks of its pairs what USB4 at 20 Gb/s asks
    expect(said([trial({ tried: 'tbt3-40', cameUp: 'tbt3-20' })], 'usb4-20')).toBe('came up')
    expect(said([trial({ tried: 'tbt3-40', cameUp: 'tbt3-20' })], 'usb4-40')).toBe('failed')
  })
  it('a drop says nothing of what asks less, and fails what asks as much', () => {
    const drop = [trial({ basis: 'soaked', cameUp: null, seconds: 70 })]
    expect(said(drop, 'usb4-40')).toBe('failed')
    expect(said(drop, 'tbt3-40')).toBe('failed')
    expect(said(drop, 'usb4-20')).toBeNull()
  })
  it('the share is kept: a fifth of a minute clears no drop, nor one good try nine that fell', () => {
    const at = (second: number) => `2026-04-01T09:00:${String(second).padStart(2, '0')}.000Z`
    const dropped = (second: number, seconds = 70) => trial({ basis: 'soaked', cameUp: null, seconds, at: at(second) })
    const look = (second: number, seconds: number) => trial({ seconds, at: at(second) })
    const fell = (second: number) => trial({ cameUp: 'usb2', at: at(second) })
    expect(said([dropped(1), look(2, 45)], 'usb4-40')).toBe('failed')
    expect(said([dropped(1), look(2, 1399)], 'usb4-40')).toBe('comes and goes')
    expect(said([dropped(1), look(2, 1400)], 'usb4-40')).toBe('held')
    expect(said([look(1, 9000), dropped(2)], 'usb4-40')).toBe('comes and goes')
    const nine = Array.from({ length: 9 }, (_, place) => fell(place))
    expect(said([...nine, look(10, 900)], 'usb4-40')).toBe('comes and goes')
    expect(said([fell(1), look(2, 5)], 'usb4-40')).toBe('failed')
    expect(said([fell(1), look(2, 60), look(3, 5), look(4, 5)], 'usb4-40')).toBe('held')
    // of one moment the worse counts
    expect(said([look(1, 9000), dropped(1)], 'usb4-40')).toBe('comes and goes')
    // a short look after a long one takes nothing from it
    expect(said([look(1, 900), look(2, 5)], 'usb4-40')).toBe('held')
  })
  it('counts how often it was, for whoever tells it', () => {
    const at = (second: number) => `2026-04-01T09:00:0${second}.000Z`
    const tries = [0, 1, 2].map((second) => trial({ cameUp: 'usb2', at: at(second) }))
    const held = [3, 4, 5, 6, 7, 8, 9].map((second) => trial({ seconds: 60, at: at(second) }))
    const seen = seenOfMode(linksOf([...tries, ...held]), 'usb4-40', anything, here)
    expect(seen.here).toMatchObject({ came: 'comes and goes', tally: { held: 7, atOnce: 3, triesSince: 7 } })
    expect(talliesOf(linksOf([...tries, ...held]))).toMatchObject([{ mode: 'usb4-40', passed: 7, tried: 10 }])
  })
  it('tells this socket from others, and counts those', () => {
    const on = (port: string, cameUp: LinkMode | null, controller = 'board') =>
      trial({ cameUp, seconds: 60, spot: { port, controller } })
    const seen = (tries: LinkTry[]) => seenOfMode(linksOf(tries), 'usb4-40', anything, here)
    expect(seen([on('pc/1', 'usb4-40')])).toMatchObject({ here: { came: 'held' }, held: 0, failed: 0 })
    expect(seen([on('pc/2', 'usb4-40'), on('pc/3', 'usb4-40'), on('pc/4', 'usb2')])).toMatchObject({
      here: null,
      held: 2,
      failed: 1,
      heldOnController: 2,
    })
    expect(seen([on('pc/2', 'usb4-40', 'card')]).heldOnController).toBe(0)
    // where nobody noted the socket, its controller speaks for all of its sockets, and nothing noted for any
    expect(seen([trial({ spot: { controller: 'board' } })]).here?.came).toBe('came up')
    expect(seen([trial({ spot: { controller: 'card' } })]).here).toBeNull()
    expect(seen([trial({})]).here?.came).toBe('came up')
  })
  it('relies on another socket of its controller only where it held there long enough', () => {
    const on = (more: Partial<LinkTry>) => trial({ seconds: 60, spot: { port: 'pc/2', controller: 'board' }, ...more })
    const asks = { ...anything.asks, relied: 120 }
    const seen = (tries: LinkTry[], at: Here = here) => seenOfMode(linksOf(tries), 'usb4-40', { ...anything, asks }, at)
    expect(seen([on({})])).toMatchObject({ held: 1, heldOnController: 0, heldLong: false })
    expect(seen([on({ seconds: 120 })])).toMatchObject({ held: 1, heldOnController: 1, heldLong: true })
    const both = [on({ seconds: 120 }), on({ spot: { port: 'pc/3', controller: 'board' } })]
    expect(seen(both)).toMatchObject({ held: 2, heldOnController: 1, heldLong: true })
    expect(seen([on({ seconds: 120 })], { ...here, controller: undefined }).heldOnController).toBe(0)
    const nowhere = on({ seconds: 120, spot: { port: 'pc/2' } })
    expect(seen([nowhere], { ...here, controller: undefined }).heldOnController).toBe(0)
    const drop = on({ basis: 'soaked', cameUp: null, seconds: 70 })
    expect(seen([drop])).toMatchObject({ failed: 1, dropped: true })
    expect(seen([drop, on({ cameUp: 'usb2', spot: { port: 'pc/3' } })])).toMatchObject({ failed: 2, dropped: true })
    expect(seen([on({ cameUp: 'usb2' })]).dropped).toBe(false)
  })
  it('is known by a soak where it was watched a minute or dropped, and by a look otherwise; a copy is no soak', () => {
    const known = (more: Partial<LinkTry>) => linksOf([trial(more)]).map(basisOf)
    expect(known({ seconds: 59 })).toEqual(['measured'])
    expect(known({ seconds: 60 })).toEqual(['soaked'])
    expect(known({ basis: 'soaked', cameUp: null, seconds: 5 })).toEqual(['soaked'])
    const [copy] = linksOf([trial({ seconds: 600 })])
    expect(copy && basisOf({ ...copy, copied: { oneLane: 'gen2x1' } })).toBe('measured')
  })
  it('is seen lower down after a drop only in this socket, later, and for a minute at least', () => {
    const at = (second: number) => `2026-04-01T09:00:${second}.000Z`
    const low = (more: Partial<LinkTry>) => linksOf([trial({ cameUp: 'gen2x1', seconds: 60, at: at(30), ...more })])
    const lower = (links: ReturnType<typeof low>, second = 20) => seenAfter(links, 'gen2x1', anything, here, at(second))
    expect(lower(low({}))).toBe(true)
    expect(lower(low({}), 30)).toBe(false)
    expect(lower(low({ seconds: 59 }))).toBe(false)
    expect(lower(low({ spot: { port: 'pc/2' } }))).toBe(false)
    expect(lower(low({ cameUp: null }))).toBe(false)
    expect(lower(low({ cameUp: 'usb2' }))).toBe(false)
  })
  it('is counted by mode and controller, with what was watched and how often it dropped', () => {
    const at = (second: number) => `2026-04-01T09:00:${second}.000Z`
    const card = { spot: { controller: 'card' } }
    const tries = [
      trial({ seconds: 30, at: at(40) }),
      trial({ seconds: 90, at: at(50), ...card }),
      trial({ seconds: 10, at: at(20), ...card }),
      trial({ basis: 'soaked', cameUp: null, seconds: 70, at: at(30), ...card }),
      trial({ tried: 'gen2x1', cameUp: 'gen2x1', seconds: 5, at: at(10), ...card }),
    ]
    const of = { mode: 'usb4-40' as const, drops: 0 }
    expect(talliesOf(linksOf(tries))).toEqual([
      { mode: 'gen2x1', controller: 'card', passed: 1, tried: 1, seconds: 5, drops: 0, last: at(10) },
      { ...of, controller: 'card', passed: 2, tried: 3, seconds: 170, drops: 1, last: at(50) },
      { ...of, controller: null, passed: 1, tried: 1, seconds: 30, last: at(40) },
    ])
    const copied = linksOf([trial({})]).map((series) => ({ ...series, copied: { oneLane: 'gen2x1' as const } }))
    expect(talliesOf(copied)).toEqual([])
  })
  it('was seen before the computer changed, or with all else unplugged', () => {
    const spot = { port: 'pc/1', setup: 'driver 1' }
    const now = (setup: string, neighbours: boolean): Here => ({ ...here, setup, neighbours })
    const seen = (tries: LinkTry[], at: Here) => seenOfMode(linksOf(tries), 'usb4-40', anything, at)
    expect(seen([trial({ spot })], now('driver 2', false)).stale).toBe(true)
    expect(seen([trial({ spot })], now('driver 1', false)).stale).toBe(false)
    // what failed then is worth trying again
    const failed = trial({ cameUp: 'usb2', spot })
    expect(seen([failed], now('driver 2', false))).toMatchObject({ here: { came: 'begun anew' }, stale: true })
    expect(seen([failed], now('driver 1', false)).here?.came).toBe('failed')
    const alone = [trial({ spot: { port: 'pc/1', alone: true } })]
    expect(seen(alone, now('', false)).here?.came).toBe('came up')
    expect(seen(alone, now('', true))).toMatchObject({ here: null, held: 1 })
  })
})

describe('laws of what was tried', () => {
  const spots = fc.constantFrom<NonNullable<LinkTry['spot']>>(
    {},
    { port: 'pc/1', controller: 'board' },
    { port: 'pc/2', controller: 'board' },
    { port: 'pc/3', controller: 'card' },
    { controller: 'board' },
    { port: 'pc/1', setup: 'driver 1' },
  )
  const any: fc.Arbitrary<LinkTry> = fc
    .record({
      basis: fc.constantFrom('measured' as const, 'soaked' as const),
      tried: fc.constantFrom(...LINK_MODES),
      cameUp: fc.option(fc.constantFrom(...LINK_MODES)),
      seconds: fc.constantFrom(undefined, 30, 60, 90, 4000),
      spot: spots,
      second: fc.integer({ min: 0, max: 4 }),
      before: fc.boolean(),
    })
    .map(({ second, seconds, before, ...rest }) => ({
      ...rest,
      ...(seconds === undefined ? {} : { seconds }),
      ...(before ? { before } : {}),
      at: `2026-04-01T09:00:0${second}.000Z`,
    }))
  const tries = fc.array(any, { maxLength: 8 })
  const mode = fc.constantFrom(...LINK_MODES)
  const lead = fc.constantFrom(anything, nothing, { ...anything, asks: { ...asks, relied: 120 } }, {
    ought: (each: LinkMode) => each !== 'usb4-80',
    construction: 'active',
    asks,
  } as TriedLead)
  const worth = (given: LinkTry[], asked: LinkMode, by: TriedLead) => {
    const { here: standing } = seenOfMode(linksOf(given), asked, by, here)
    return standing === null ? 2.5 : CAME.indexOf(standing.came)
  }

  it('one more that held never worsens, and one more that failed never betters', () => {
    fc.assert(
      fc.property(tries, any, mode, lead, (given, more, asked, by) => {
        const passes = { ...more, cameUp: more.tried, seconds: 120 }
        expect(worth([...given, passes], asked, by)).toBeGreaterThanOrEqual(worth(given, asked, by))
        const drops: LinkTry = { ...more, cameUp: null, basis: 'soaked' }
        expect(worth([...given, drops], asked, by)).toBeLessThanOrEqual(worth(given, asked, by))
      }),
      { numRuns: cases(3000) },
    )
  })
})
