import { describe, expect, it } from 'vitest'
import { Ledger } from './ledger'
import { type PictureTried, pictureSort, seenOfPicture } from './pictures'
import { type Here, placeKey, type Spot } from './spot'

const asks = { least: 60, relied: 120, soak: 60 }
const here: Here = { port: 'pc/1', setup: 'driver 2', neighbours: false }
const mode = (height: number) => ({ width: 3840, height, refresh: 60, bits: 8, chroma: '444' }) as const
type Shown = { rate?: number; held?: boolean; dropped?: true; seconds?: number; spot?: Spot }

/** Pictures one after the other, as they are learnt. */
function seen(all: readonly Shown[], rate = 12e9, at: Here | null = here) {
  const ledger = new Ledger<PictureTried>(pictureSort)
  for (const [second, { rate: sent = 12e9, held = true, dropped, seconds, spot = {} }] of all.entries())
    ledger.add(
      { mode: mode(sent / 1e7), rate: sent, held, ...(dropped ? { dropped } : {}) },
      { spot, place: placeKey({ spot }), before: false, at: `2026-04-01T09:00:${10 + second}.000Z` },
      seconds,
    )
  return seenOfPicture(ledger.series(), rate, asks, at)
}

describe('pictures that were tried', () => {
  it('hold for one as large or smaller, and fail for one as large or larger', () => {
    expect(seen([{}]).here?.came).toBe('held')
    expect(seen([{ rate: 11.9e9 }]).here).toBeNull()
    expect(seen([{ rate: 13e9 }]).here?.came).toBe('held')
    expect(seen([{ held: false }]).here?.came).toBe('failed')
    expect(seen([{ held: false, rate: 11e9 }]).here?.came).toBe('failed')
    expect(seen([{ held: false, rate: 13e9 }]).here).toBeNull()
  })
  it('that were black at once are cleared by three tries, and that went black after a while by time', () => {
    const black = { held: false }
    const look = { seconds: 60 }
    expect(seen([black, look, look]).here).toMatchObject({ came: 'comes and goes', tally: { held: 2, atOnce: 1 } })
    expect(seen([black, look, look, look]).here?.came).toBe('held')
    const went = { held: false, dropped: true as const, seconds: 3000 }
    expect(seen([went, look, look, look]).here).toMatchObject({ came: 'comes and goes', drops: true })
    expect(seen([went, { seconds: 59_999 }]).here?.came).toBe('comes and goes')
    expect(seen([went, { seconds: 60_000 }]).here?.came).toBe('held')
  })
  it('in other sockets are counted, and what was seen before something else was installed is to be seen again', () => {
    const on = (port: string, held = true): Shown => ({ held, spot: { port } })
    expect(seen([on('pc/2'), on('pc/3'), on('pc/4', false)])).toMatchObject({ here: null, held: 2, failed: 1 })
    expect(seen([on('pc/1'), on('pc/4', false)])).toMatchObject({ here: { came: 'held' }, held: 0, failed: 1 })
    expect(seen([on('pc/1')], 12e9, null)).toMatchObject({ here: null, held: 1, stale: false })
    const old = { spot: { port: 'pc/1', setup: 'driver 1' } }
    expect(seen([old])).toMatchObject({ stale: true, here: { came: 'held' } })
    expect(seen([{ ...old, held: false }])).toMatchObject({ stale: true, here: { came: 'begun anew' } })
    expect(seen([{ spot: { port: 'pc/1', setup: 'driver 2' } }]).stale).toBe(false)
    expect(seen([])).toEqual({ here: null, stale: false, held: 0, failed: 0 })
  })
})
