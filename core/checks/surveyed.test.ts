import fc from 'fast-check'
import { describe, expect } from 'vitest'
import { demo } from '../../tests/support/demo-plan'
import { ours, practice, remembered } from '../../tests/support/figures'
import { judge } from '../../tests/support/one-run'
import { put } from '../plan/put'
import { endsMate } from '../standards/connectors'
import type { DisplayPortLink } from '../standards/picture-links'
import type { PictureMode } from '../vocabulary/need'
import { assess } from './assess'
import { takesMode } from './shown-modes'

const gradeOf = (input: Parameters<typeof judge>[0], code: string): string | undefined =>
  judge(input).run.findings.find(({ reason }) => reason.code === code)?.grade

describe('a type-C port without its resistors (common practice)', () => {
  const tablet = { connector: 'type-c', role: 'device', usb: 'usb2', takes: 10, lacksResistors: true } as const
  const need = { kind: 'power', watts: 5 } as const
  ours('is fed by a lead from a type-A socket and not by a C-to-C one', () => {
    const fromC = { connector: 'type-c', role: 'host', usb: 'usb2', gives: 15 } as const
    const fromA = { connector: 'type-a', role: 'host', usb: 'usb2', gives: 7.5 } as const
    expect(
      gradeOf({ from: fromC, to: tablet, leads: [{ grade: 'usb2', length: 1, amps: 3 }], need }, 'lacks-resistors'),
    ).toBe('blocked')
    expect(
      gradeOf(
        { from: fromA, to: tablet, leads: [{ grade: 'usb2', length: 1, amps: 3, ends: ['type-a', 'type-c'] }], need },
        'lacks-resistors',
      ),
    ).toBeUndefined()
    const data = { kind: 'data', rate: 1e6 } as const
    expect(
      gradeOf({ from: fromC, to: tablet, leads: [{ grade: 'usb2', length: 1 }], need: data }, 'lacks-resistors'),
    ).toBe('note')
  })
})

describe("a maker's own plug", () => {
  ours('mates with one of its name only, whatever the case', () => {
    const ring = { connector: 'own', gender: 'plug', ownPlug: 'Ring' } as const
    expect(endsMate(ring, { connector: 'own', gender: 'socket', ownPlug: 'ring' })).toBe(true)
    expect(endsMate(ring, { connector: 'own', gender: 'socket', ownPlug: 'square' })).toBe(false)
    expect(endsMate(ring, { connector: 'own', gender: 'plug', ownPlug: 'Ring' })).toBe(false)
    expect(endsMate(ring, { connector: 'type-c', gender: 'socket' })).toBe(false)
  })
})

describe('a headset', () => {
  const from = { connector: 'type-a', role: 'host', usb: 'gen1x1', gives: 4.5 } as const
  const to = { connector: 'type-c', role: 'device', usb: 'gen1x1', takes: 10, kind: 'headset' } as const
  const worn = (hours: number | undefined) =>
    judge({
      from,
      to,
      far: { battery: { wattHours: 7, draw: 8 } },
      leads: [{ grade: 'gen1', length: 2, ends: ['type-a', 'type-c'], amps: 3 }],
      need: { kind: 'headset', rate: 1e9, ...(hours === undefined ? {} : { hours }) },
    }).run.findings.find(({ reason }) => reason.code === 'battery')
  ours('that drains lasts the hours that are asked, exactly those as well, or does not', () => {
    expect(worn(undefined)?.grade).toBe('tight')
    const { reason } = worn(1) ?? {}
    const hours = reason?.code === 'battery' && reason.course.course === 'drains' ? reason.course.hours : 0
    // 7 Wh at 8 W less the 4.5 W that arrive (common practice: two hours, three on such a port)
    expect(hours).toBeCloseTo(2, 6)
    expect(worn(hours)?.grade).toBe('clear')
    expect(worn(hours + 0.001)?.grade).toBe('blocked')
  })
  practice('reaches the corners of its play area with 5 m and not with 3 m (2 m by 2 m takes 5 m)', () => {
    const reach = (length: number) => {
      const cable = demo.cables.find(({ id }) => id === 'c-0029')
      const place = demo.places.find(({ id }) => id === 'deck-bay')
      const run = demo.runs.find(({ id }) => id === 'r-15')
      if (!cable || !place?.at || !run) throw new Error('the demo has a headset in a play area')
      // the port is at the wall, in the middle of the near edge
      const wall = put(demo, 'places', {
        id: 'wall',
        name: 'Wall',
        mains: true,
        at: { ...place.at, y: place.at.y - 1 },
        height: 0.5,
      })
      const computer = wall.devices.find(({ id }) => id === run.from.device)
      if (!computer) throw new Error('it has a computer')
      const moved = put(put(wall, 'devices', { ...computer, place: 'wall' }), 'cables', { ...cable, length })
      const verdict = assess(moved).runs.find(({ id }) => id === 'r-15')
      return verdict?.findings.find(({ reason }) => reason.code === 'play-area')?.grade
    }
    expect(reach(5)).toBe('clear')
    expect(reach(3)).toBe('blocked')
  })
})

describe('a display that was read', () => {
  ours('takes each mode it lists, 59.94 for 60, and no other size', () => {
    const mode = fc.record({
      width: fc.integer({ min: 640, max: 8000 }),
      height: fc.integer({ min: 480, max: 4500 }),
      refresh: fc.constantFrom(24, 30, 50, 60, 120),
    })
    fc.assert(
      fc.property(fc.array(mode, { minLength: 1, maxLength: 8 }), (modes) => {
        const screen = {
          modes: modes.map((each) => ({ ...each, refresh: each.refresh * (1000 / 1001) })),
          read: '2026-01-01',
        }
        for (const each of modes) {
          expect(takesMode(screen, { ...each, bits: 8, chroma: '444' })).toBe(true)
          expect(takesMode(screen, { ...each, width: 9000, bits: 8, chroma: '444' })).toBe(false)
          expect(takesMode({ ...screen, modes: [] }, { ...each, bits: 8, chroma: '444' })).toBe(false)
        }
      }),
    )
  })
})

describe('bits per colour and dynamic range', () => {
  const mode = { width: 3840, height: 2160, refresh: 60, bits: 10, chroma: '444' } as const
  const screen = { modes: [{ width: 3840, height: 2160, refresh: 59.997 }], read: '2026-01-01' } as const
  type Said = { bits?: 8 | 10 | 12; hdr?: boolean }
  const codes = (asked: Partial<PictureMode>, said: Said | null, link: DisplayPortLink = 'hbr3') =>
    judge({
      from: { connector: 'displayport', displayport: { direction: 'out', link } },
      to: { connector: 'displayport', displayport: { direction: 'in', link }, kind: 'display' },
      ...(said ? { far: { screen: { ...screen, modes: [...screen.modes], ...said } } } : {}),
      leads: [{ length: 2, ends: ['displayport', 'displayport'], grade: 'dp-hbr3' }],
      need: { kind: 'picture', mode: { ...mode, ...asked } },
    })
      .run.findings.filter(({ check }) => check === 'colour depth')
      .map(({ grade, reason }) => `${grade} ${reason.code}`)
  ours('are those the display says, exactly as many as well; 4:2:2 has room for 12 wherever it goes', () => {
    expect(codes({}, { bits: 10 })).toEqual([])
    expect(codes({ bits: 12 }, { bits: 10 })).toEqual(['blocked fewer-bits'])
    expect(codes({ bits: 12, chroma: '422' }, { bits: 10 })).toEqual([])
    expect(codes({ bits: 12 }, null)).toEqual([])
  })
  ours('high dynamic range is what the display says it is, and an unread one is not promised', () => {
    expect(codes({ hdr: true }, { hdr: true })).toEqual(['clear hdr'])
    expect(codes({ hdr: true }, { hdr: false })).toEqual(['blocked no-hdr'])
    expect(codes({ hdr: true }, {})).toEqual(['note hdr'])
    expect(codes({ hdr: true }, null)).toEqual(['note hdr'])
    expect(codes({}, { hdr: false })).toEqual([])
  })
  remembered('HDMI 2.0a and DisplayPort 1.4')('and ports of a level older than it are looked up first', () => {
    expect(codes({ hdr: true, height: 1080 }, null, 'hbr2')).toEqual([
      'note hdr',
      'tight hdr-version',
      'tight hdr-version',
    ])
  })
})
