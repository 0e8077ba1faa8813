import { describe, expect } from 'vitest'
import { ours, practice, remembered } from '../../tests/support/figures'
import { judge, type OneRun } from '../../tests/support/one-run'
import { readPlan } from '../plan/read'
import { assess } from './assess'

const host: OneRun['from'] = { connector: 'type-c', role: 'host', usb: 'gen2x1', thunderbolt: 4, gives: 15 }
const disk = (more: object, rate: number, grade: 'gen2' | 'usb4-40' = 'gen2') =>
  judge({
    from: host,
    to: {
      kind: 'storage',
      connector: 'type-c',
      role: 'device',
      usb: 'gen2x1',
      ...(grade === 'usb4-40' ? { thunderbolt: 4 } : {}),
    },
    far: { disk: { write: '3500 MB/s', read: '3500 MB/s', ...more } },
    leads: [{ grade, length: 0.5 }],
    need: { kind: 'storage', rate: rate * 8e6 },
  }).finding('storage target')

const picture = (direction: 'in' | 'out') => ({
  direction,
  link: 'hbr2' as const,
  lanes: 4 as const,
  compression: false,
})
const hdmi = (direction: 'in' | 'out') => ({ direction, level: 'tmds-18' as const, compression: false })

describe('storage target', () => {
  remembered('Thunderbolt 3, early hosts')('an early Thunderbolt host gives less to disks than the box says', () => {
    const fast = { write: '9000 MB/s', read: '9000 MB/s' }
    const behind = (thunderbolt: 3 | 4) =>
      judge({
        from: { ...host, thunderbolt },
        to: { kind: 'storage', connector: 'type-c', role: 'device', thunderbolt: 3 },
        far: { disk: { ...fast, pcie: '3x4' } },
        leads: [{ grade: 'thunderbolt3', length: 0.5 }],
        need: { kind: 'storage', rate: 23e9 },
      }).finding('storage target')
    expect(behind(3)).toMatchObject({ have: 22e9, grade: 'blocked' })
    expect(behind(4)?.have).toBeGreaterThan(23e9)
  })
  practice('is clear below the band, tight within it and blocked above it (10 Gb/s disks do 950 to 1060 MB/s)', () => {
    expect([900, 1000, 1100].map((rate) => disk({}, rate)?.grade)).toEqual(['clear', 'tight', 'blocked'])
  })
  ours(
    'asks what is written of writing and what is read of reading: a slow writer may still read as fast as is asked',
    () => {
      const asked = (write: number, read: number) =>
        judge({
          from: host,
          to: { kind: 'storage', connector: 'type-c', role: 'device', usb: 'gen2x1' },
          far: { disk: { write: '400 MB/s', read: '3500 MB/s' } },
          leads: [{ grade: 'gen2', length: 0.5 }],
          need: { kind: 'storage', rate: write * 8e6, back: read * 8e6 },
        }).finding('storage target')
      expect(asked(300, 900)).toMatchObject({ grade: 'clear' })
      expect(asked(500, 900)).toMatchObject({ grade: 'blocked', reason: { way: 'write' } })
      expect(asked(300, 1100)).toMatchObject({ grade: 'blocked', reason: { way: 'read' } })
    },
  )
  practice('names the lanes inside an enclosure that 40 Gb/s on the box does not show', () => {
    expect(disk({ pcie: '3x4' }, 3300, 'usb4-40')).toMatchObject({ grade: 'blocked', reason: { limitedBy: 'pcie' } })
    expect(disk({ pcie: '4x4', write: '1200 MB/s' }, 1300, 'usb4-40')).toMatchObject({
      grade: 'blocked',
      reason: { limitedBy: 'drive', way: 'write' },
    })
  })
  practice('takes the overhead the site goes by', () => {
    const band = (storageOverhead: { low: number; high: number }) =>
      judge({
        from: host,
        to: { kind: 'storage', connector: 'type-c', role: 'device', thunderbolt: 4 },
        far: { disk: { write: '9000 MB/s', read: '9000 MB/s' } },
        leads: [{ grade: 'usb4-40', length: 0.5 }],
        need: { kind: 'storage', rate: 24e9 },
        policy: { storageOverhead },
      }).finding('storage target')?.have
    expect(band({ low: 0, high: 0.1 })).toBeGreaterThan(band({ low: 0.3, high: 0.4 }) ?? Number.POSITIVE_INFINITY)
  })
})

describe('battery', () => {
  const worn = (gives: number, draw: number) =>
    judge({
      from: { connector: 'type-c', role: 'host', usb: 'gen1x1', gives },
      to: { kind: 'headset', connector: 'type-c', role: 'device', usb: 'gen1x1', takes: 10 },
      far: { battery: { wattHours: 16, draw } },
      leads: [{ grade: 'gen1', length: 2 }],
      need: { kind: 'headset', rate: 1e9 },
    })
  practice('that drains while plugged in is tight and says how long it lasts', () => {
    const { finding, words } = worn(4.5, 8)
    expect(finding('battery')).toMatchObject({ grade: 'tight', have: 4.5, need: 8 })
    expect(words).toContain('drains though it is plugged in, and lasts about 4.6 h')
  })
  ours('that holds or charges is clear, and takes no more than the headset does', () => {
    expect(worn(8, 8).finding('battery')).toMatchObject({ grade: 'clear', reason: { course: { course: 'holds' } } })
    expect(worn(15, 8).finding('battery')).toMatchObject({
      grade: 'clear',
      have: 10,
      reason: { course: { course: 'charges' } },
    })
  })
})

describe('volts lost', () => {
  const charging = (awg: number, length: number, watts = 96) =>
    judge({
      from: { kind: 'charger', connector: 'type-c', role: 'host', gives: 100 },
      to: { connector: 'type-c', takes: 100, usb: 'gen2x1' },
      leads: [{ grade: 'usb2', amps: 5, length, more: { awg } }],
      need: { kind: 'power', watts },
    }).finding('volts lost')
  remembered('USB Type-C')(
    'by wire, length and the current that flows: half a volt is what a supply conductor may lose',
    () => {
      expect(charging(20, 1)).toMatchObject({ grade: 'clear', unit: 'V', need: 0.5 })
      expect(charging(28, 1)).toMatchObject({ grade: 'tight', remedies: [{ code: 'thicker-or-shorter' }] })
      expect(charging(28, 1, 20)?.grade).toBe('clear')
      expect(charging(22, 2)?.have).toBeCloseTo(0.5296 * (4.8 / 5), 3)
    },
  )
  ours('is not guessed where the gauge is not known', () => {
    expect(
      judge({
        from: { kind: 'charger', connector: 'type-c', role: 'host', gives: 100 },
        to: { connector: 'type-c', takes: 100 },
        leads: [{ grade: 'usb2', amps: 5, length: 1 }],
        need: { kind: 'power', watts: 96 },
      }).finding('volts lost'),
    ).toBeUndefined()
  })
})

describe('pictures that are too large', () => {
  const picture = (text: { width: number; height: number; refresh: number; bits: 8 | 10 }, compression = false) =>
    judge({
      from: { connector: 'displayport', displayport: { direction: 'out', link: 'hbr3', compression } },
      to: { kind: 'display', connector: 'displayport', displayport: { direction: 'in', link: 'hbr3', compression } },
      leads: [{ grade: 'dp-hbr3', length: 1.5, ends: ['displayport', 'displayport'] }],
      need: { kind: 'picture', mode: { ...text, chroma: '444' } },
    })
  const large = { width: 3840, height: 2160, refresh: 144, bits: 10 } as const
  ours('are told what fits instead', () => {
    const { finding } = picture(large)
    expect(finding('picture')?.grade).toBe('blocked')
    expect(finding('picture')?.remedies).toMatchObject([
      { code: 'picture-instead', concession: 'compression' },
      { code: 'picture-instead', concession: 'lower refresh', mode: { refresh: 90 } },
      { code: 'picture-instead', concession: 'less colour' },
      // no step that both ports have carries it, whatever lead lies there
      { code: 'other-port' },
    ])
  })
  ours('fit compressed where both ends can', () => {
    const { finding, words } = picture(large, true)
    expect(finding('picture')).toMatchObject({ grade: 'clear', reason: { compressedBits: 19.8125 } })
    expect(words).toContain('compressed to 19.81 bits a pixel')
  })
})

describe('a device that is particular about its voltage', () => {
  ours('is named where it will not take the higher levels', () => {
    const { finding, words } = judge({
      from: { kind: 'charger', connector: 'type-c', role: 'host', gives: 100 },
      to: { kind: 'other', connector: 'type-c', takes: 45, accepts: [5, 9] },
      leads: [{ grade: 'usb2', amps: 5, length: 1 }],
      need: { kind: 'power', watts: 45 },
    })
    expect(finding('current')).toMatchObject({ grade: 'tight', have: 27, part: { label: 'Far, port' } })
    expect(words).toContain('does not accept the higher levels')
  })
})

describe('bus budget', () => {
  const behindHub = (gives: number, busPowered: boolean) => {
    const usb = { usb: 'gen1x1' } as const
    const cable = (id: string) => ({
      id,
      tag: id,
      ends: [{ connector: 'type-c' }, { connector: 'type-c' }],
      length: 1,
      evidence: [{ basis: 'claimed', on: '2026-01-01', grade: 'gen1', amps: 3 }],
    })
    const socket = (id: string, role: 'host' | 'device', more: object = {}) => ({
      id,
      name: id,
      connector: 'type-c',
      role,
      ...usb,
      ...more,
    })
    const read = readPlan({
      format: 'hallway-plan',
      version: 1,
      site: { id: 's', name: 'S' },
      devices: [
        { id: 'host', name: 'Host', kind: 'computer', ports: [socket('p', 'host', { gives })] },
        {
          id: 'hub',
          name: 'Hub',
          kind: 'hub',
          busPowered,
          ports: [socket('up', 'device'), socket('a', 'host', { gives: 4.5 }), socket('b', 'host', { gives: 4.5 })],
        },
        { id: 'one', name: 'One', kind: 'camera', ports: [socket('p', 'device')] },
        { id: 'two', name: 'Two', kind: 'camera', ports: [socket('p', 'device')] },
      ],
      cables: ['c0', 'c1', 'c2'].map(cable),
      runs: [
        ['r0', 'host', 'p', 'hub', 'up'],
        ['r1', 'hub', 'a', 'one', 'p'],
        ['r2', 'hub', 'b', 'two', 'p'],
      ].map(([id, from, out, to, into], at) => ({
        id,
        tag: id,
        from: { device: from, port: out },
        to: { device: to, port: into },
        leads: [{ cable: `c${at}` }],
        route: { length: 0.5 },
      })),
      needs: ['one', 'two'].map((from) => ({ id: from, kind: 'camera', from, to: 'host', rate: '1 Gb/s', watts: 4 })),
    })
    if (!read.ok) throw new Error(JSON.stringify(read.faults))
    return assess(read.plan).runs[0]?.findings.find((finding) => finding.check === 'bus budget')
  }
  practice('a hub without a supply shares out what its uplink gives: 8 W behind it and half a watt of its own', () => {
    expect(behindHub(15, true)).toMatchObject({ grade: 'clear', have: 15, need: 8.5 })
    expect(behindHub(4.5, true)).toMatchObject({ grade: 'blocked', remedies: [{ code: 'powered-hub' }] })
    expect(behindHub(4.5, false)).toBeUndefined()
  })
  practice('an active lead with older plugs takes half a watt of the bus beside the device, unless it is fed', () => {
    const beside = (feed: 'bus' | 'optional', watts = 4.5) =>
      judge({
        from: { connector: 'type-a', role: 'host', usb: 'gen1x1' },
        to: { kind: 'camera', connector: 'type-c', role: 'device', usb: 'gen1x1' },
        leads: [{ grade: 'gen1', construction: 'active', length: 3, ends: ['type-a', 'type-c'], more: { feed } }],
        need: { kind: 'camera', rate: 1e9, watts, upstream: true },
      }).finding('bus budget')
    expect(beside('bus')).toMatchObject({ grade: 'blocked', have: 4.5, need: 5 })
    expect(beside('bus', 4)).toMatchObject({ grade: 'clear', need: 4.5 })
    expect(beside('optional')).toBeUndefined()
  })
})

describe('lanes', () => {
  const beside = (dataToo: boolean) =>
    judge({
      from: { connector: 'type-c', role: 'host', usb: 'gen2x1', displayport: picture('out') },
      to: { kind: 'display', connector: 'type-c', role: 'device', usb: 'gen2x1', displayport: picture('in') },
      leads: [{ grade: 'gen2', length: 1 }],
      need: { kind: 'picture', mode: { width: 1920, height: 1080, refresh: 60, bits: 8, chroma: '444' } },
      alsoNeed: dataToo ? [{ kind: 'data', rate: 5e9 }] : [],
    })
  remembered('DisplayPort alternate mode, pin assignments C and D')(
    'a picture alone takes four lanes and leaves USB 2.0; beside fast data it takes two and leaves a lane each way',
    () => {
      expect(beside(false).finding('lanes')).toMatchObject({ grade: 'note', reason: { lanes: 4, beside: 'usb2' } })
      expect(beside(true).finding('lanes')).toMatchObject({ reason: { lanes: 2, beside: 'gen2x1' } })
      expect(beside(true).words).toContain(
        'takes 2 lanes of the type-C connector; beside it USB 10 Gb/s (Gen 2) is left',
      )
    },
  )
})

describe('adapters', () => {
  const through = (ends: [string, string], oneWay = false) =>
    judge({
      from: { connector: ends[0] as 'hdmi', role: 'either', ...source(ends[0]) },
      to: { kind: 'display', connector: ends[1] as 'hdmi', role: 'either', ...sink(ends[1]) },
      leads: [{ grade: 'hdmi-18', length: 1, ends, oneWay }],
      need: { kind: 'picture', mode: { width: 1920, height: 1080, refresh: 60, bits: 8, chroma: '444' } },
    })
  const source = (end: string) => (end === 'hdmi' ? { hdmi: hdmi('out') } : { displayport: picture('out') })
  const sink = (end: string) => (end === 'hdmi' ? { hdmi: hdmi('in') } : { displayport: picture('in') })
  practice('turn DisplayPort into HDMI, and HDMI into DisplayPort only where made for it', () => {
    expect(through(['displayport', 'hdmi']).run.grade).toBe('clear')
    const backwards = through(['hdmi', 'displayport'])
    expect(backwards.finding('direction')).toMatchObject({ grade: 'blocked', reason: { code: 'converts-other-way' } })
    expect(backwards.finding('picture')?.grade).toBe('blocked')
    expect(through(['hdmi', 'displayport'], true).finding('direction')?.grade).toBe('clear')
  })
})
