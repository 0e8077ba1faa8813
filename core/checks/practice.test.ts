import { describe, expect } from 'vitest'
import { practice, publishedIn, remembered } from '../../tests/support/figures'
import { judge, type OneRun } from '../../tests/support/one-run'
import { cautionSentences } from './wording'

const thunderbolt4: OneRun['from'] = { connector: 'type-c', role: 'host', usb: 'gen2x1', thunderbolt: 4, gives: 15 }
const thunderbolt3: OneRun['from'] = { connector: 'type-c', role: 'host', usb: 'gen2x1', thunderbolt: 3, gives: 15 }
const dock: OneRun['to'] = { kind: 'dock', connector: 'type-c', role: 'device', usb: 'gen2x1', thunderbolt: 4 }
const diskGen2: OneRun['to'] = { kind: 'storage', connector: 'type-c', role: 'device', usb: 'gen2x1' }
const hostA: OneRun['from'] = { connector: 'type-a', role: 'host', usb: 'gen1x1' }
const deviceB = (usb: 'usb2' | 'gen1x1'): OneRun['to'] => ({ connector: 'type-b', role: 'device', usb })
const charger = (watts: number): OneRun['from'] => ({
  kind: 'charger',
  connector: 'type-c',
  role: 'host',
  gives: watts,
})
const laptop = (watts: number): OneRun['to'] => ({
  kind: 'computer',
  connector: 'type-c',
  role: 'either',
  usb: 'gen2x1',
  takes: watts,
})
const between = (from: OneRun['from'], to: OneRun['to'], ...leads: OneRun['leads']) => judge({ from, to, leads })

describe('the mode that comes up', () => {
  practice.each([
    { lead: 'Thunderbolt 3 passive 0.5 m', grade: 'thunderbolt3', length: 0.5, host: thunderbolt3, mode: 'tbt3-40' },
    { lead: 'Thunderbolt 3 passive 1 m', grade: 'thunderbolt3', length: 1, host: thunderbolt3, mode: 'tbt3-20' },
    { lead: 'Thunderbolt 3 passive 2 m', grade: 'thunderbolt3', length: 2, host: thunderbolt3, mode: 'tbt3-20' },
    {
      lead: 'Thunderbolt 3 passive 2 m on newer ends',
      grade: 'thunderbolt3',
      length: 2,
      host: thunderbolt4,
      mode: 'usb4-20',
    },
  ] as const)('$lead: $mode', ({ grade, length, host, mode }) => {
    expect(between(host, dock, { grade, length }).run.mode).toBe(mode)
  })

  remembered('USB Type-C, cable assembly lengths').each([
    { lead: 'USB4 passive 0.8 m', grade: 'usb4-40', length: 0.8, host: thunderbolt4, mode: 'usb4-40' },
    { lead: 'USB4 passive 1.2 m', grade: 'usb4-40', length: 1.2, host: thunderbolt4, mode: 'usb4-20' },
  ] as const)('$lead: $mode', ({ grade, length, host, mode }) => {
    expect(between(host, dock, { grade, length }).run.mode).toBe(mode)
  })

  practice('Thunderbolt 3 active 2 m keeps 40 Gb/s', () => {
    const lead = { grade: 'thunderbolt3', construction: 'active', length: 2 } as const
    expect(between(thunderbolt3, dock, lead).run.mode).toBe('tbt3-40')
  })

  practice('the same lead with a 10 Gb/s USB disk at the end falls to USB 2.0, and the lead is blamed', () => {
    const lead = { grade: 'thunderbolt3', construction: 'active', length: 2 } as const
    const { run, finding, words } = between(thunderbolt4, diskGen2, lead)
    expect(run.mode).toBe('usb2')
    expect(finding('link mode')).toMatchObject({ part: { label: 'C-1' }, have: 480e6, need: 10e9 })
    expect(words).toContain('does not carry USB 10 Gb/s')
  })

  practice('a generation-2 Thunderbolt lead marked active gives 20 Gb/s on 40 Gb/s ends', () => {
    const lead = { grade: 'thunderbolt2', construction: 'active', length: 2 } as const
    expect(between(thunderbolt4, dock, lead).run.mode).toBe('tbt3-20')
  })
})

describe('what a lead lacks', () => {
  practice('a charge-only lead between computer and dock fits, carries nothing and is named', () => {
    const { run, finding, words } = judge({
      from: thunderbolt4,
      to: dock,
      leads: [{ grade: 'charge-only', length: 1 }],
    })
    expect(finding('fit')?.grade).toBe('clear')
    expect(run).toMatchObject({ grade: 'blocked', mode: null })
    expect(words).toContain('C-1 is a charge-only lead')
  })

  practice('nothing is promised of a lead nobody knows', () => {
    const { run, words } = judge({ from: thunderbolt4, to: dock, leads: [{ length: 1 }] })
    expect(run.grade).toBe('blocked')
    expect(words).toContain('Nothing is known about what C-1 carries')
  })
})

describe('older USB leads and extensions', () => {
  const data = (rate: number) => ({ kind: 'data', rate }) as const
  const aToB = (length: number) => ({ grade: 'usb2', length, ends: ['type-a', 'type-b'] }) as OneRun['leads'][number]
  const extension = (more: Partial<OneRun['leads'][number]>) =>
    ({ grade: 'usb2', length: 5, ends: ['type-a', 'type-a socket'], ...more }) as OneRun['leads'][number]

  publishedIn('USB 2.0 §7.1.16')('a 5 m USB 2.0 lead is clear', () => {
    expect(judge({ from: hostA, to: deviceB('usb2'), leads: [aToB(5)], need: data(480e6) }).run.grade).toBe('clear')
  })
  publishedIn('USB 2.0 §7.1.16')('a 6 m USB 2.0 lead is blocked', () => {
    const { run, finding } = judge({ from: hostA, to: deviceB('usb2'), leads: [aToB(6)], need: data(480e6) })
    expect(run).toMatchObject({ grade: 'blocked', mode: null })
    expect(finding('link mode')?.source.where).toContain('USB 2.0')
  })

  const stick: OneRun['to'] = { connector: 'type-a', gender: 'plug', role: 'device', usb: 'gen1x1' }
  practice('a passive 3 m extension does not carry 5 Gb/s by the book', () => {
    const { run, words } = judge({
      from: hostA,
      to: stick,
      leads: [extension({ grade: 'gen1', length: 3 })],
      need: data(5e9),
    })
    expect(run).toMatchObject({ grade: 'blocked', mode: 'usb2' })
    expect(words).toContain('By the book')
  })
  practice(
    'what it passed on the bench counts where the site goes by the bench, and is only shown where it goes by the book',
    () => {
      const tested = extension({
        grade: 'gen1',
        length: 3,
        evidence: [{ basis: 'soaked', on: '2026-04-01', tried: 'gen1x1', cameUp: 'gen1x1', seconds: 600 }],
      })
      const at = (length: 'book' | 'bench') =>
        judge({ from: hostA, to: stick, leads: [tested], need: data(5e9), policy: { length } })
      expect(at('bench').run).toMatchObject({ grade: 'clear', mode: 'gen1x1' })
      expect(at('bench').words).toContain('By the rules of this site that counts')
      expect(at('book').run).toMatchObject({ grade: 'blocked', mode: 'usb2' })
      expect(at('book').words).toContain('so it does not count')
    },
  )
  practice('an active 5 m extension carries 5 Gb/s', () => {
    const lead = extension({ grade: 'gen1', construction: 'active' })
    expect(judge({ from: hostA, to: stick, leads: [lead], need: data(5e9) }).run).toMatchObject({
      grade: 'clear',
      mode: 'gen1x1',
    })
  })
  practice('two 5 m USB 2.0 extensions in a row are blocked', () => {
    const { run, finding } = judge({
      from: hostA,
      to: { ...stick, usb: 'usb2' },
      leads: [extension({}), extension({})],
      need: data(1e6),
    })
    expect(run).toMatchObject({ grade: 'blocked', mode: null })
    expect(finding('link mode')?.reason).toMatchObject({ code: 'falls', lack: { why: 'chain', length: 10 } })
  })
  practice('an extension with plugs at both ends does not fit', () => {
    const lead = extension({ ends: ['type-a', 'type-a'] })
    const { finding, run } = judge({ from: hostA, to: stick, leads: [lead] })
    expect(finding('fit')).toMatchObject({ grade: 'blocked', reason: { code: 'ends-do-not-mate' } })
    expect(run.grade).toBe('blocked')
  })
})

describe('power', () => {
  practice('an unmarked lead and a 96 W laptop: 60 W, tight, and the missing 5 A mark is named', () => {
    const { finding, words, run } = judge({
      from: charger(100),
      to: laptop(96),
      leads: [{ grade: 'usb2', length: 1 }],
      need: { kind: 'power', watts: 96 },
    })
    expect(finding('current')).toMatchObject({ grade: 'tight', have: 60, need: 96, part: { label: 'C-1' } })
    expect(words).toContain('no 5 A mark')
    expect(run.grade).toBe('tight')
  })
  practice('with the mark all 96 W arrive, with the caution for more than 60 W', () => {
    const lead = { grade: 'usb2', length: 1, amps: 5 } as const
    const { finding } = judge({ from: charger(100), to: laptop(96), leads: [lead], need: { kind: 'power', watts: 96 } })
    expect(finding('current')).toMatchObject({ grade: 'clear', have: 100, caution: 'above-60-watts' })
  })
  practice('a display that gives 57 W to an 87 W laptop charges it slowly, and the display is the limit', () => {
    const display: OneRun['to'] = { kind: 'display', connector: 'type-c', role: 'device', usb: 'gen1x1', gives: 57 }
    const { finding } = judge({
      from: laptop(87),
      to: display,
      leads: [{ grade: 'gen1', length: 1 }],
      need: { kind: 'power', watts: 87, upstream: true },
    })
    expect(finding('current')).toMatchObject({ grade: 'tight', have: 57, part: { label: 'Far, port' } })
  })

  const camera: OneRun['to'] = { kind: 'camera', connector: 'type-c', role: 'device', usb: 'gen2x1', takes: 4.5 }
  const optical = { grade: 'gen2', construction: 'optical', length: 12 } as const
  const frames = { kind: 'camera', rate: 4e9, watts: 4.5, upstream: true } as const
  practice('a 12 m optical 10 Gb/s lead to a bus-powered camera: rate clear, power blocked', () => {
    const { finding, run } = judge({ from: thunderbolt4, to: camera, leads: [optical], need: frames, route: 10 })
    expect(finding('rate')?.grade).toBe('clear')
    expect(finding('current')).toMatchObject({
      grade: 'blocked',
      have: 0,
      reason: { code: 'lead-without-power', optical: true },
    })
    expect(run.grade).toBe('blocked')
  })
  practice('the same lead with power in it is clear', () => {
    const { run } = judge({ from: thunderbolt4, to: camera, leads: [{ ...optical, amps: 3 }], need: frames, route: 10 })
    expect(run.grade).toBe('clear')
  })
})

describe('direction', () => {
  practice('a one-way type-C to DisplayPort lead from a DisplayPort source to a type-C display is blocked', () => {
    const desktop: OneRun['from'] = { connector: 'displayport', displayport: { direction: 'out', link: 'hbr3' } }
    const display: OneRun['to'] = {
      kind: 'display',
      connector: 'type-c',
      displayport: { direction: 'in', link: 'hbr3' },
    }
    const oneWay = {
      grade: 'dp-hbr3',
      length: 1.8,
      ends: ['type-c', 'displayport'],
      oneWay: true,
    } as OneRun['leads'][number]
    const need = { kind: 'picture', mode: { width: 3840, height: 2160, refresh: 60, bits: 8, chroma: '444' } } as const
    const { finding, run } = judge({ from: desktop, to: display, leads: [oneWay], need })
    expect(finding('direction')).toMatchObject({ grade: 'blocked', reason: { code: 'one-way-lead' } })
    expect(run.grade).toBe('blocked')
    expect(judge({ from: desktop, to: display, leads: [{ ...oneWay, oneWay: false }], need }).run.grade).toBe('clear')
  })

  practice('a type-A to type-A lead between two sources is blocked with the caution', () => {
    const lead = { grade: 'gen1', length: 1, ends: ['type-a', 'type-a'] } as OneRun['leads'][number]
    const { finding, run } = judge({ from: hostA, to: { ...hostA, kind: 'computer' }, leads: [lead] })
    expect(finding('direction')).toMatchObject({ grade: 'blocked', caution: 'two-supplies' })
    expect(run.grade).toBe('blocked')
    expect(cautionSentences['two-supplies']).toContain('Never join two supplies')
  })
})
