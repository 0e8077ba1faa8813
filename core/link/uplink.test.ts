import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { type LinkMode, linkModeFacts } from '../standards/link-modes'
import type { Need } from '../vocabulary/need'
import type { Crossed } from './admission'
import type { PictureLink } from './picture-link'
import { admit } from './uplink'

const tunnel: PictureLink = {
  payload: 36e9,
  name: 'tunnel',
  via: 'tunnel',
  source: linkModeFacts['usb4-40'].source,
  spec: null,
  stages: [],
  compression: false,
}
const hbr2 = { family: 'displayport', link: 'hbr2', lanes: 4 } as const
/** What a run comes to with these needs on it. */
const filled = (
  crossings: readonly Crossed[],
  mode: LinkMode | null = 'usb4-40',
  picture: PictureLink | null = tunnel,
  reservation: 'link' | 'stream' = 'stream',
) => admit(crossings, { mode, pair: true, picture, onDataPins: false, reservation })
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
const found = (needs: readonly Crossed[], mode: LinkMode | null = 'usb4-40', way: PictureLink | null = tunnel) =>
  Object.fromEntries(filled(needs, mode, way).admissions.map(({ need, have }) => [need.id, have]))

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
    const own: PictureLink = { ...tunnel, payload: 17.28e9, via: 'displayport', spec: hbr2, stages: [hbr2] }
    expect(found([crossing(picture('p1')), crossing(rate('disk', 'storage', 1e9))], 'gen2x1', own).disk).toBe(
      linkModeFacts.gen2x1.payload,
    )
  })
  it('several displays on one DisplayPort link get whole time slots of it, one fewer than 64 (DisplayPort 1.2)', () => {
    const spec = { family: 'displayport', link: 'hbr2', lanes: 4 } as const
    const own: PictureLink = { ...tunnel, payload: 17.28e9, via: 'displayport', spec, stages: [spec] }
    const slot = 17.28e9 / 64
    const [first, second] = filled(
      [crossing(picture('p1', 2560, 1440)), crossing(picture('p2', 2560, 1440))],
      null,
      own,
      'link',
    ).admissions
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
    const [admitted, disk] = filled(
      [squeezed, crossing(rate('disk', 'storage', 1e9))],
      'usb4-40',
      tunnel,
      'link',
    ).admissions
    expect(admitted?.compressedBits).toBeGreaterThanOrEqual(8)
    expect(admitted?.wanted).toBeLessThanOrEqual(17.28e9)
    expect(disk?.have).toBeCloseTo(linkModeFacts['usb4-40'].payload - (admitted?.wanted ?? 0), 0)
    const full = [
      crossing(picture('a', 7680, 4320)),
      crossing(picture('b', 7680, 4320)),
      crossing(picture('c', 7680, 4320)),
      crossing(picture('d', 7680, 4320)),
    ]
    const [, , , refusedOne, left] = filled([...full, crossing(rate('disk', 'storage', 1e9))]).admissions
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
        const plain = filled([beside, crossing(disk(one), own)], link, null).admissions
        const said = filled([beside, crossing(disk(one, one), own)], link, null).admissions
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
        const [camera, found] = filled([beside, crossing(disk(write, read), own)], 'usb4-40', null).admissions
        const { payload } = linkModeFacts['usb4-40']
        // what is refused takes nothing
        const held = camera?.admitted ? taken : 0
        const asked = own === 'down' ? { down: write, up: read } : { down: read, up: write }
        const share = Math.min((payload - held) / asked.down, payload / asked.up)
        expect((found?.have ?? 0) / (found?.wanted ?? 1)).toBeCloseTo(share, 9)
      }),
    )
  })
})

describe('what is served', () => {
  const kinds = fc.constantFrom('picture' as const, 'camera' as const, 'storage' as const, 'data' as const)
  const asked = fc
    .record({
      kind: kinds,
      gigabits: fc.integer({ min: 1, max: 30 }),
      way: fc.constantFrom('down', 'up'),
      usb2: fc.boolean(),
    })
    .map(({ kind, gigabits, way, usb2 }) => ({ kind, gigabits, way: way as 'down' | 'up', usb2 }))
  const crossings = fc
    .array(asked, { minLength: 1, maxLength: 6 })
    .map((each) =>
      each.map(
        ({ kind, gigabits, way, usb2 }, at): Crossed =>
          kind === 'picture'
            ? crossing(picture(`n${at}`, 640 * (1 + (gigabits % 8)), 480 * (1 + (gigabits % 5))))
            : { need: rate(`n${at}`, kind, gigabits * (usb2 ? 2e7 : 1e9)), way, ...(usb2 ? { usb2 } : {}) },
      ),
    )
  const links = fc.constantFrom(
    { mode: 'usb4-40', picture: tunnel } as const,
    { mode: 'usb4-20', picture: { ...tunnel, payload: 18e9 } } as const,
    {
      mode: 'gen2x1',
      picture: { ...tunnel, payload: 17.28e9, via: 'displayport', spec: hbr2, stages: [hbr2] },
    } as const,
    { mode: 'usb2', picture: null } as const,
  )
  const policies = fc.constantFrom('link' as const, 'stream' as const)
  it('is sent whole, what is refused holds and takes nothing, and both ways add up to what is left', () => {
    fc.assert(
      fc.property(crossings, links, policies, (needs, { mode, picture }, reservation) => {
        const { admissions, payload, left } = filled(needs, mode, picture, reservation)
        for (const { need, admitted, held, sent } of admissions) {
          const takes = held.down + held.up + sent.down + sent.up
          if (!admitted && need.kind !== 'picture') expect(takes).toBe(0)
          expect(sent.down).toBeLessThanOrEqual(held.down * (1 + 1e-9))
        }
        const inLink = admissions.filter(
          ({ need, carrier }) =>
            carrier &&
            (need.kind !== 'picture' || picture?.via === 'tunnel') &&
            !(mode !== 'usb2' && onPair(needs, need)),
        )
        for (const way of ['down', 'up'] as const) {
          const taken = inLink.reduce((sum, { sent }) => sum + sent[way], 0)
          expect(left[way]).toBeCloseTo(Math.max(0, payload[way] - taken), -1)
        }
      }),
    )
  })
  it('is served in order: with one need less, the first of those behind it that fares otherwise fares better', () => {
    fc.assert(
      fc.property(crossings, links, fc.nat(5), (needs, { mode, picture }, at) => {
        const gone = needs[at % needs.length]
        const all = filled(needs, mode, picture).admissions.filter(({ need }) => need !== gone?.need)
        const fewer = filled(
          needs.filter((each) => each !== gone),
          mode,
          picture,
        ).admissions
        expect(fewer.map(({ need }) => need.id)).toEqual(all.map(({ need }) => need.id))
        const other = fewer.findIndex(({ admitted }, place) => admitted !== all[place]?.admitted)
        if (other >= 0) expect(fewer[other]?.admitted).toBe(true)
      }),
    )
  })
  const onPair = (needs: readonly Crossed[], need: Need) => needs.some((each) => each.need === need && each.usb2)
})

describe('devices of USB 2.0 behind a faster hub', () => {
  const camera = (id: string, megabits: number): Crossed => ({
    need: rate(id, 'camera', megabits * 1e6),
    way: 'up',
    usb2: true,
  })
  it('share its USB 2.0 half, and leave the fast pairs alone (USB 3.2, from memory)', () => {
    const { admissions, left } = filled([camera('one', 300), camera('two', 200), camera('three', 100)], 'gen1x1', null)
    expect(admissions.map(({ admitted }) => admitted)).toEqual([true, false, true])
    expect(left.up).toBe(linkModeFacts.gen1x1.payload)
  })
  it('need the pair of USB 2.0 in the uplink', () => {
    const [admission] = admit([camera('one', 100)], {
      mode: 'gen2x1',
      pair: false,
      picture: null,
      onDataPins: true,
      reservation: 'link',
    }).admissions
    expect(admission).toMatchObject({ admitted: false, carrier: null })
  })
})

describe('a picture on the pins of type-C', () => {
  const own = (lanes: 2 | 4): PictureLink => {
    const spec = { family: 'displayport', link: 'hbr2', lanes } as const
    return { ...tunnel, payload: 4.32e9 * lanes, via: 'displayport', spec, stages: [spec] }
  }
  const beside = (lanes: 2 | 4) =>
    admit([crossing(picture('p', 1920, 1080)), crossing(rate('disk', 'storage', 1.5e10))], {
      mode: 'gen2x2',
      pair: true,
      picture: own(lanes),
      onDataPins: true,
      reservation: 'link',
    })
  it('leaves one lane of USB beside two, so that Gen 2x2 falls to 10 Gb/s (pin assignment D, from memory)', () => {
    expect(beside(2)).toMatchObject({ mode: 'gen2x1' })
    expect(beside(2).admissions[1]).toMatchObject({ admitted: false, have: linkModeFacts.gen2x1.payload })
  })
  it('and USB 2.0 beside four (pin assignment C, from memory)', () => {
    expect(beside(4)).toMatchObject({ mode: 'usb2' })
  })
})

describe('HDMI', () => {
  it('carries one picture: a second one finds nothing (from memory)', () => {
    const spec = { family: 'hdmi', level: 'frl-48' } as const
    const own: PictureLink = { ...tunnel, payload: 42e9, via: 'hdmi', spec, stages: [spec] }
    const { admissions } = filled([crossing(picture('p1')), crossing(picture('p2'))], null, own)
    expect(admissions.map(({ admitted, have }) => [admitted, have > 0])).toEqual([
      [true, true],
      [false, false],
    ])
  })
  it('behind a converting lead asks what it asks by its own timing, though the DisplayPort before it has more', () => {
    // 3840x2160@60 by CTA-861 is 594 MHz, over the 340 MHz of this level; by reduced blanking it would be 533
    const stages = [
      { family: 'displayport', link: 'hbr3', lanes: 4 },
      { family: 'hdmi', level: 'tmds-10.2' },
    ] as const
    const own: PictureLink = { ...tunnel, payload: 8.16e9, via: 'hdmi', spec: stages[1], stages }
    expect(filled([crossing(picture('p'))], null, own).admissions[0]?.admitted).toBe(false)
  })
})
