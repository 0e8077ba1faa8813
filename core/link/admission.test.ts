import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { linkModeFacts } from '../standards/link-modes'
import type { Need } from '../vocabulary/need'
import { admit } from './admission'
import type { PictureLink } from './picture-link'

const tunnel: PictureLink = {
  payload: 36e9,
  name: 'tunnel',
  via: 'tunnel',
  source: linkModeFacts['usb4-40'].source,
  spec: null,
  compression: false,
}
const picture = (id: string, width = 3840, height = 2160): Need => ({
  id,
  kind: 'picture',
  from: 'a',
  to: 'b',
  mode: { width, height, refresh: 60, bits: 8, chroma: '444' },
})
const rate = (id: string, kind: 'storage' | 'data' | 'camera', bits: number): Need => ({
  id,
  kind,
  from: 'a',
  to: 'b',
  rate: bits,
})
const crossing = (need: Need, way: 'down' | 'up' = 'down') => ({ need, way })
const found = (
  needs: { need: Need; way: 'down' | 'up' }[],
  mode: Parameters<typeof admit>[1] = 'usb4-40',
  way: PictureLink | null = tunnel,
) => Object.fromEntries(admit(needs, mode, way, 'stream').map(({ need, have }) => [need.id, have]))

describe('what each need finds on a shared run', () => {
  const fourK = 522_614_000 * 24
  it('pictures come first, whatever the order of the list, and storage has what is left', () => {
    const have = found([crossing(rate('disk', 'storage', 8e9)), crossing(picture('p1')), crossing(picture('p2'))])
    expect(have.p1).toBe(36e9)
    expect(have.p2).toBe(36e9 - fourK)
    expect(have.disk).toBeCloseTo(linkModeFacts['usb4-40'].payload - 2 * fourK, 0)
  })
  it('what flows towards the host is not held up by pictures, except storage, which is written as well as read', () => {
    const have = found([crossing(picture('p1')), crossing(rate('cam', 'camera', 4e9), 'up')])
    expect(have.cam).toBe(linkModeFacts['usb4-40'].payload)
  })
  it('USB 2.0 has one wire for both ways', () => {
    const have = found(
      [crossing(rate('cam', 'camera', 200e6), 'up'), crossing(rate('disk', 'storage', 100e6))],
      'usb2',
      null,
    )
    expect(have.disk).toBeCloseTo(linkModeFacts.usb2.payload - 200e6, 0)
  })
  it('a data link asked for by its mark is compared with the mark', () => {
    expect(found([crossing(rate('d', 'data', 10e9))], 'gen2x1', null).d).toBe(10e9)
  })
  it('pictures beside the data, not in it, leave the data alone', () => {
    const own: PictureLink = { ...tunnel, payload: 17.28e9, via: 'displayport' }
    expect(found([crossing(picture('p1')), crossing(rate('disk', 'storage', 1e9))], 'gen2x1', own).disk).toBe(
      linkModeFacts.gen2x1.payload,
    )
  })
  it('several displays on one DisplayPort link get whole time slots of it, one fewer than 64 (DisplayPort 1.2)', () => {
    const spec = { family: 'displayport', link: 'hbr2', lanes: 4 } as const
    const own: PictureLink = { ...tunnel, payload: 17.28e9, via: 'displayport', spec }
    const slot = 17.28e9 / 64
    const [first, second] = admit(
      [crossing(picture('p1', 2560, 1440)), crossing(picture('p2', 2560, 1440))],
      null,
      own,
      'link',
    )
    expect([first?.wanted, first?.have].map((rate) => Math.round((rate ?? 0) / slot))).toEqual([21, 63])
    expect([second?.wanted, second?.have].map((rate) => Math.round((rate ?? 0) / slot))).toEqual([21, 42])
  })
  it('never leaves less than nothing', () => {
    const have = found([
      crossing(picture('a', 7680, 4320)),
      crossing(picture('b', 7680, 4320)),
      crossing(rate('disk', 'storage', 1e9)),
    ])
    // both fall to the step that is left for them, and load the link with what that carries
    expect([have.b, Math.round(have.disk ?? 0)]).toEqual([
      8.64e9,
      Math.round(linkModeFacts['usb4-40'].payload - 25.92e9 - 8.64e9),
    ])
  })
  it('a picture that is refused loads nothing, and one that is compressed loads what it sends', () => {
    const squeezed = {
      need: picture('p', 5120, 2880),
      way: 'down' as const,
      ends: { link: 'hbr2' as const, lanes: 4 as const, compression: true },
    }
    const [admitted, disk] = admit([squeezed, crossing(rate('disk', 'storage', 1e9))], 'usb4-40', tunnel, 'link')
    expect(admitted?.compressedBits).toBeGreaterThanOrEqual(8)
    expect(admitted?.wanted).toBeLessThanOrEqual(17.28e9)
    expect(disk?.have).toBeCloseTo(linkModeFacts['usb4-40'].payload - (admitted?.wanted ?? 0), 0)
    const full = [
      crossing(picture('a', 7680, 4320)),
      crossing(picture('b', 7680, 4320)),
      crossing(picture('c', 7680, 4320)),
      crossing(picture('d', 7680, 4320)),
    ]
    const [, , , refusedOne, left] = admit(
      [...full, crossing(rate('disk', 'storage', 1e9))],
      'usb4-40',
      tunnel,
      'stream',
    )
    expect(refusedOne?.spec).toBeNull()
    expect(left?.have).toBeGreaterThan(0)
  })
  it('without a link there is nothing to have', () => {
    expect(found([crossing(picture('p')), crossing(rate('d', 'data', 1e9))], null, null)).toEqual({ p: 0, d: 0 })
  })
})

describe('storage that is written at one rate and read at another', () => {
  const disk = (write: number, read?: number): Need => ({
    id: 'disk',
    kind: 'storage',
    from: 'a',
    to: 'b',
    rate: write,
    ...(read === undefined ? {} : { back: read }),
  })
  const mode = fc.constantFrom('usb2' as const, 'gen2x1' as const, 'usb4-40' as const)
  const rateOf = fc.integer({ min: 1, max: 40 }).map((gigabits) => gigabits * 1e9)
  const way = fc.constantFrom('down' as const, 'up' as const)
  it('read as fast as it is written is what it is without a word of reading, on either way and beside others', () => {
    fc.assert(
      fc.property(mode, rateOf, rateOf, way, way, (link, one, other, own, theirs) => {
        const beside = crossing(rate('cam', 'camera', other), theirs)
        const plain = admit([beside, crossing(disk(one), own)], link, tunnel, 'stream')
        const said = admit([beside, crossing(disk(one, one), own)], link, tunnel, 'stream')
        expect(said.map(({ have, wanted, before }) => [have, wanted, before])).toEqual(
          plain.map(({ have, wanted, before }) => [have, wanted, before]),
        )
      }),
    )
  })
  it('is held to the way on which less is left of what it asks there, and no more is asked of the other', () => {
    fc.assert(
      fc.property(rateOf, rateOf, rateOf, way, (write, read, taken, own) => {
        const beside = crossing(rate('cam', 'camera', taken), 'down')
        const [, found] = admit([beside, crossing(disk(write, read), own)], 'usb4-40', tunnel, 'stream')
        const { payload } = linkModeFacts['usb4-40']
        const asked = own === 'down' ? { down: write, up: read } : { down: read, up: write }
        const share = Math.min(Math.max(0, payload - taken) / asked.down, payload / asked.up)
        expect((found?.have ?? 0) / (found?.wanted ?? 1)).toBeCloseTo(share, 9)
      }),
    )
  })
})
