import { describe, expect } from 'vitest'
import { practice } from '../../tests/support/figures'
import { judge, type OneRun } from '../../tests/support/one-run'
import { noiseOn } from '../placement/floor-noise'
import { addLevels, levelAt } from '../placement/sound'
import type { Plan } from '../plan/plan'
import { deviceSchema } from '../vocabulary/device'
import { placeSchema } from '../vocabulary/place'
import { assess } from './assess'

// Facts that decide a verdict once somebody says them. Values are common practice unless a line says otherwise.

const host: OneRun['from'] = { connector: 'type-c', role: 'host', usb: 'gen2x1', gives: 15 }

describe('a headset', () => {
  const headset: OneRun['to'] = { kind: 'headset', connector: 'type-c', role: 'device', usb: 'gen2x1', takes: 10 }
  const wearing = (more: object, lead: OneRun['leads'][number] = { grade: 'gen2', length: 1 }, far: object = {}) =>
    judge({
      from: host,
      to: headset,
      leads: [lead],
      far,
      need: { kind: 'headset', rate: 150e6, watts: 9.2, ...more } as never,
    })
  practice('that asks for a link refuses a charge lead between fast ports, though its pictures would fit', () => {
    const charge = { grade: 'usb2', length: 1 } as const
    expect(wearing({}, charge).finding('asked link')).toBeUndefined()
    expect(wearing({ link: 'gen1x1' }, charge).finding('asked link')).toMatchObject({ grade: 'blocked' })
    expect(wearing({ link: 'gen1x1' }).finding('asked link')).toMatchObject({ grade: 'clear' })
  })
  practice('gains on 9.2 W at 90 Hz and drains at 120 Hz, by what it draws at the refresh that is used', () => {
    const battery = { battery: { wattHours: 20, draw: 8, uses: [{ refresh: 120, draw: 9.6 }] } }
    const course = (refresh: number) =>
      judge({
        from: { ...host, gives: 9.2 },
        to: headset,
        leads: [{ grade: 'gen2', length: 1 }],
        far: battery,
        need: { kind: 'headset', rate: 150e6, refresh },
      }).finding('battery')?.reason
    expect(course(90)).toMatchObject({ course: { course: 'charges' } })
    expect(course(120)).toMatchObject({ course: { course: 'drains' } })
  })
})

describe('a sensor with a voltage of its own', () => {
  const feed = (said?: 'there' | 'missing') =>
    judge({
      from: host,
      to: { kind: 'sensor', connector: 'type-c', role: 'device', usb: 'gen1x1' },
      leads: [{ grade: 'gen2', length: 1 }],
      need: { kind: 'sensor', rate: 5e9, volts: 12, ...(said ? { feed: said } : {}) },
    }).finding('own voltage')?.grade
  practice('is blocked where its supply is missing', () => {
    expect([feed(), feed('there'), feed('missing')]).toEqual(['note', 'note', 'blocked'])
  })
})

describe('an extender', () => {
  const over = (length: number, rated: object) =>
    judge({
      from: { kind: 'extender', connector: '8p8c', role: 'host', usb: 'usb2' },
      to: { kind: 'extender', connector: '8p8c', role: 'device', usb: 'usb2' },
      leads: [{ grade: 'cat6', length, ends: ['8p8c', '8p8c'] }],
      far: rated,
    }).run.mode
  practice('reaches as far as it is rated over its cable, and as its sort does where nobody knows', () => {
    expect([over(50, {}), over(60, {})]).toEqual(['usb2', null])
    expect(over(60, { rated: { cat6: 75 } })).toBe('usb2')
    expect(over(40, { rated: { cat6: 30 } })).toBeNull()
  })
  practice('that needs drivers does not go with a computer that takes none', () => {
    const { plan } = judge({
      from: host,
      to: { kind: 'extender', connector: 'type-c', role: 'device', usb: 'gen2x1' },
      leads: [{ grade: 'gen2', length: 1 }],
      far: { drivers: 'needs' },
    })
    const grade = (drivers: Plan['devices'][number]['drivers']) =>
      assess({
        ...plan,
        devices: plan.devices.map((each) => (each.id === 'near' ? { ...each, drivers } : each)),
      }).runs[0]?.findings.find(({ check }) => check === 'drivers')?.grade
    expect([grade(undefined), grade('takes none')]).toEqual([undefined, 'blocked'])
  })
})

describe('what a lead has', () => {
  const optical = (more: object, need: object = { kind: 'data', rate: 480e6 }) =>
    judge({
      from: { connector: 'type-c', role: 'host', usb: 'usb2' },
      to: { connector: 'type-c', role: 'device', usb: 'usb2' },
      leads: [{ grade: 'gen2', length: 20, construction: 'optical', more: more as never }],
      through: ['other-earth'],
      route: 15,
      need: need as never,
    })
  practice('of the USB 2.0 pair decides for devices of USB 2.0', () => {
    expect(optical({}).run.mode).toBeNull()
    expect(optical({ pair: true }).run.mode).toBe('usb2')
  })
  practice('of copper decides between different earths', () => {
    const grade = (more: object) => optical(more).run.findings.find(({ reason }) => reason.code === 'passes')?.grade
    expect([grade({}), grade({ copper: true }), grade({ copper: false })]).toEqual(['note', 'blocked', 'note'])
  })
  practice('of a third plug feeds the laptop at its host end: 4K60 and up to 140 W back', () => {
    const { finding } = judge({
      from: {
        connector: 'type-c',
        role: 'host',
        usb: 'gen2x1',
        takes: 96,
        displayport: { direction: 'out', link: 'hbr3', lanes: 4, compression: false },
      },
      to: { kind: 'display', connector: 'hdmi', hdmi: { direction: 'in', level: 'tmds-18', compression: false } },
      leads: [{ grade: 'hdmi-18', length: 2, ends: ['type-c', 'hdmi'], more: { passesBack: 100 } as never }],
      need: { kind: 'power', watts: 96, upstream: true } as never,
    })
    expect(finding('current')).toMatchObject({ grade: 'clear', have: 100 })
  })
  practice('of a feed at its host end asks for mains there and not at its far end', () => {
    const fed = (feedEnd: 'host' | 'far', near: boolean) =>
      judge({
        from: host,
        to: { connector: 'type-c', role: 'device', usb: 'gen2x1' },
        leads: [{ grade: 'gen2', length: 8, construction: 'active', more: { feed: 'required', feedEnd } }],
        far: { place: 'far-place' },
        places: [{ id: 'far-place', name: 'Far', mains: !near }],
        route: 6,
      }).finding('far-end power')?.grade
    // the near device stands nowhere yet: nobody knows its mains
    expect([fed('far', true), fed('host', true)]).toEqual(['blocked', 'note'])
  })
})

describe('noise', () => {
  const plan = (noise: object[], quiet = 34): Pick<Plan, 'devices' | 'places'> => ({
    places: [placeSchema.parse({ id: 'chair', name: 'Chair', quiet, at: { floor: 'g', x: 0, y: 0 } })],
    devices: noise.map((each, at) =>
      deviceSchema.parse({
        id: `box-${at}`,
        name: `Box ${at}`,
        kind: 'dock',
        noise: each,
        at: { floor: 'g', x: 1 + at, y: 0 },
      }),
    ),
  })
  practice('under load counts, and it is said how far the loudest box would have to stand', () => {
    const [chair] = noiseOn(plan([{ level: 34, loaded: 49, distance: 0.7 }]), 'g').chairs
    expect(chair?.heard).toBeCloseTo(levelAt(49, 0.7, 1), 6)
    expect(chair?.move).toMatchObject({ from: 1, to: expect.closeTo(3.94, 2) })
  })
  practice('there the level is the one wanted, with the other boxes where they stand', () => {
    const boxes = [
      { level: 50, distance: 1 },
      { level: 30, distance: 1 },
    ]
    const [chair] = noiseOn(plan(boxes), 'g').chairs
    const then = addLevels([levelAt(50, 1, chair?.move?.to ?? 0), levelAt(30, 1, 2)])
    expect(then).toBeCloseTo(34, 6)
  })
  practice('where moving one box is not enough it says so', () => {
    const loud = { level: 50, distance: 1 }
    expect(noiseOn(plan([loud, loud]), 'g').chairs[0]?.move).toBeNull()
  })
})
