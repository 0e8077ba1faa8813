import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { cases } from '../../tests/support/laws'
import { judge, type NeedInput, type OneRun } from '../../tests/support/one-run'
import { linkModeFacts } from '../standards/link-modes'

const host: OneRun['from'] = { connector: 'type-c', role: 'host', usb: 'gen2x1', gives: 15 }
const device: OneRun['to'] = { connector: 'type-c', role: 'device', usb: 'gen2x1' }
const gradeOf = (run: Partial<OneRun>) =>
  judge({ from: host, to: device, leads: [{ grade: 'gen2', length: 1 }], ...run }).run.grade

describe('a figure exactly at its limit is clear, a hair beyond is not, and rounding never decides', () => {
  it('a lead as long as the route with its slack, whatever the figures', () => {
    const lengthGrade = (route: number, slack: number, length: number) =>
      judge({
        from: { ...host, usb: 'usb2' },
        to: { ...device, usb: 'usb2' },
        leads: [{ grade: 'usb2', length }],
        route,
        policy: { slack },
      }).finding('length')?.grade
    expect(lengthGrade(3, 0.1, 3.3)).toBe('clear')
    fc.assert(
      fc.property(fc.integer({ min: 10, max: 3000 }), fc.integer({ min: 0, max: 100 }), (centimetres, percent) => {
        const route = centimetres / 100
        // as a person works it out, on paper
        const exact = (centimetres * (100 + percent)) / 10_000
        expect(lengthGrade(route, percent / 100, exact)).toBe('clear')
        expect(lengthGrade(route, percent / 100, exact * (1 - 1e-6))).not.toBe('clear')
      }),
      { numRuns: cases(150) },
    )
  })
  it('as many needs as share a link evenly, and one more not', () => {
    const share = (count: number): NeedInput[] =>
      Array.from({ length: count }, () => ({ kind: 'data', rate: 2e9 }) as NeedInput)
    expect(gradeOf({ alsoNeed: share(5) })).toBe('clear')
    expect(gradeOf({ alsoNeed: [...share(5), { kind: 'data', rate: 1e6 }] })).toBe('blocked')
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 12 }), (count) => {
        const each = { kind: 'data', rate: 10e9 / count } as NeedInput
        expect(gradeOf({ alsoNeed: Array.from({ length: count }, () => each) })).toBe('clear')
      }),
    )
  })
  it('a stream of just what the link leaves with its headroom, and a hair more', () => {
    const { payload } = linkModeFacts.gen2x1
    const camera = (rate: number) => gradeOf({ need: { kind: 'camera', rate, upstream: true } as never })
    expect(camera(payload / 1.1)).toBe('clear')
    expect(camera((payload / 1.1) * (1 + 1e-6))).toBe('tight')
    expect(camera(payload)).toBe('tight')
    expect(camera(payload * (1 + 1e-6))).toBe('blocked')
  })
  it('watts that are just what is asked', () => {
    const power = (gives: number, watts: number) =>
      gradeOf({ from: { ...host, gives }, to: { ...device, takes: watts }, need: { kind: 'power', watts } })
    expect([power(60, 60), power(60, 60.001)]).toEqual(['clear', 'tight'])
  })
  it('passive leads in a row whose shares add up to one whole', () => {
    const chain = (...lengths: number[]) =>
      judge({
        from: { connector: 'type-a', role: 'host', usb: 'gen1x1' },
        to: { connector: 'type-b', role: 'device', usb: 'gen1x1' },
        leads: lengths.map((length, at) => ({
          grade: 'gen1',
          length,
          ends: at === lengths.length - 1 ? ['type-a', 'type-b'] : ['type-a', 'type-a socket'],
        })),
      }).run.mode
    // extensions before a lead share its 3 m with it, and one metre among themselves
    expect(chain(0.1, 0.2, 2.7)).toBe('gen1x1')
    expect(chain(0.1, 0.2, 2.7 + 1e-6)).toBe('usb2')
    expect(chain(0.3, 0.7, 1)).toBe('gen1x1')
    expect(chain(0.3, 0.7 + 1e-6, 1)).toBe('usb2')
  })
})

describe('lanes go by rate, not by kind', () => {
  const screen = (needs: NeedInput[]) =>
    judge({
      from: {
        connector: 'type-c',
        role: 'host',
        usb: 'gen2x1',
        displayport: { direction: 'out', link: 'hbr2', lanes: 4 },
      },
      to: {
        kind: 'display',
        connector: 'type-c',
        role: 'device',
        usb: 'gen2x1',
        displayport: { direction: 'in', link: 'hbr2', lanes: 4 },
      },
      leads: [{ grade: 'gen2', length: 0.8 }],
      need: { kind: 'picture', mode: { width: 3840, height: 2160, refresh: 60, bits: 8, chroma: '444' } },
      alsoNeed: needs,
    }).finding('picture')
  it('what USB 2.0 carries beside a picture leaves it all four lanes', () => {
    expect(screen([{ kind: 'data', rate: 12e6 }])).toMatchObject({ grade: 'clear', have: 17.28e9 })
    expect(screen([{ kind: 'data', rate: 480e6 }])).toMatchObject({ grade: 'clear', have: 17.28e9 })
  })
  it('what is more than that, in one need or in several, leaves it two', () => {
    expect(screen([{ kind: 'data', rate: 480.1e6 }])).toMatchObject({ grade: 'blocked', have: 8.64e9 })
    expect(
      screen([
        { kind: 'data', rate: 300e6 },
        { kind: 'camera', rate: 200e6 },
      ]),
    ).toMatchObject({ have: 8.64e9 })
  })
})

describe('which voltages a device accepts', () => {
  it('decides what a headset gets, as it does for what arrives', () => {
    const worn = (accepts?: number[]) =>
      judge({
        from: { ...host, usb: 'gen1x1', gives: 60 },
        to: { connector: 'type-c', role: 'device', usb: 'gen1x1', accepts },
        far: { kind: 'headset', battery: { wattHours: 16, draw: 20 } },
        leads: [{ grade: 'gen1', length: 1 }],
        need: { kind: 'headset', rate: 2e9, watts: 20 },
      }).finding('battery')
    expect(worn()).toMatchObject({ have: 60, grade: 'clear' })
    expect(worn([5])).toMatchObject({ have: 15, grade: 'tight' })
  })
  it('and what a lead loses on the way', () => {
    const lost = (accepts?: number[]) =>
      judge({
        from: { connector: 'type-c', role: 'host', gives: 60 },
        to: { connector: 'type-c', role: 'device', takes: 15, accepts },
        leads: [{ grade: 'usb2', length: 2, more: { awg: 24 } }],
        need: { kind: 'power', watts: 15 },
      }).finding('volts lost')
    // 15 W are 3 A at 5 V and 0.75 A at 20 V
    expect((lost([5])?.have ?? 0) / (lost()?.have ?? 1)).toBeCloseTo(4, 6)
  })
})

describe('a lead of a run that is not at hand', () => {
  it.each([
    ['lent', 'tight', 'is lent'],
    ['retired', 'blocked', 'retired'],
  ] as const)('is told: %s', (standing, grade, words) => {
    const judged = judge({ from: host, to: device, leads: [{ grade: 'gen2', length: 0.5, more: { standing } }] })
    expect(judged.run.grade).toBe(grade)
    expect(judged.words).toContain(words)
  })
})
