import { describe, expect } from 'vitest'
import { ours, practice, remembered } from '../../tests/support/figures'
import { judge, type OneRun, onePlan } from '../../tests/support/one-run'
import type { Policy } from '../vocabulary/policy'
import { assess } from './assess'

const host: OneRun['from'] = { connector: 'type-c', role: 'host', usb: 'gen2x1', gives: 15 }
const device: OneRun['to'] = { connector: 'type-c', role: 'device', usb: 'gen2x1' }

describe('type-C extensions', () => {
  const leads: OneRun['leads'] = [
    { grade: 'gen2', length: 0.3, ends: ['type-c', 'type-c socket'] },
    { grade: 'gen2', length: 0.5 },
  ]
  const gradeUnder = (extensions: Policy['extensions'], proof?: object) => {
    const plan = onePlan({ from: host, to: device, leads, policy: { extensions } })
    const { leads: chain = ['c1', 'c2'], ...more } = (proof ?? {}) as { leads?: string[] }
    const seen = {
      id: 'proof',
      at: '2026-05-01T12:00:00.000Z',
      subject: { run: 'r1', leads: chain },
      kind: 'trial' as const,
      basis: 'soaked' as const,
      tried: 'gen2x1' as const,
      cameUp: 'gen2x1' as const,
      seconds: 120,
      ...more,
    }
    const observations = proof ? [...plan.observations, seen] : plan.observations
    return assess({ ...plan, observations }).runs[0]?.findings.find((finding) => finding.check === 'extension')?.grade
  }
  ours('are never used where the site says never, soaked or not', () => {
    expect(gradeUnder('never', {})).toBe('blocked')
  })
  ours('are allowed where this very chain held for a minute, and only then', () => {
    expect(gradeUnder('soaked')).toBe('blocked')
    expect(gradeUnder('soaked', {})).toBe('note')
    expect(gradeUnder('soaked', { seconds: 45 })).toBe('blocked')
    expect(gradeUnder('soaked', { leads: ['c2', 'c1'] })).toBe('blocked')
    expect(gradeUnder('soaked', { cameUp: 'usb2' })).toBe('blocked')
  })
})

describe('supplied cables only', () => {
  const lead = { grade: 'gen2', length: 0.5 } as const
  ours('blocks a lead that came with nothing, or with something else', () => {
    const run = (policy: Partial<Policy>, suppliedWith?: string) =>
      judge({ from: host, to: device, leads: [{ ...lead, more: { suppliedWith } }], policy }).run.grade
    expect(run({ cables: 'supplied' })).toBe('blocked')
    expect(run({ cables: 'supplied' }, 'far')).toBe('clear')
    expect(run({ cables: 'any' })).toBe('clear')
  })
})

describe('HDMI to a computer display', () => {
  const plan = onePlan({
    from: { connector: 'hdmi', hdmi: { direction: 'out', level: 'tmds-18' } },
    to: { kind: 'display', connector: 'hdmi', hdmi: { direction: 'in', level: 'tmds-18' } },
    leads: [{ grade: 'hdmi-18', length: 2, ends: ['hdmi', 'hdmi'] }],
  })
  const withDisplayPort = (computerDisplays: Policy['computerDisplays']) => ({
    ...plan,
    policy: { ...plan.policy, computerDisplays },
    devices: plan.devices.map((each) =>
      each.id === 'far'
        ? {
            ...each,
            ports: [
              ...each.ports,
              {
                id: 'dp',
                name: 'DP',
                connector: 'displayport' as const,
                gender: 'socket' as const,
                role: 'either' as const,
                displayport: { direction: 'in' as const, link: 'hbr3' as const, lanes: 4 as const, compression: false },
              },
            ],
          }
        : each,
    ),
  })
  const notes = (given: typeof plan) =>
    assess(given)
      .runs[0]?.findings.filter((finding) => finding.check === 'display input')
      .map(({ grade }) => grade)
  ours('gets a note where the display has DisplayPort and the site prefers it, and never a worse verdict', () => {
    expect(notes(withDisplayPort('displayport'))).toEqual(['note'])
    expect(assess(withDisplayPort('displayport')).runs[0]?.grade).toBe('clear')
    expect(notes(withDisplayPort('either'))).toEqual([])
    expect(notes(plan)).toEqual([])
  })
})

describe('direction and fit', () => {
  ours('two devices drive nothing, and a run drawn backwards is told to turn', () => {
    const lead = { grade: 'gen2', length: 0.5 } as const
    expect(judge({ from: device, to: device, leads: [lead] }).finding('direction')?.reason.code).toBe('two-devices')
    expect(judge({ from: device, to: host, leads: [lead] }).finding('direction')?.reason.code).toBe('wrong-way-round')
    const picture = (direction: 'in' | 'out') =>
      ({ connector: 'displayport', displayport: { direction, link: 'hbr2' } }) as OneRun['from']
    const dp = { grade: 'dp-hbr2', length: 1, ends: ['displayport', 'displayport'] } as OneRun['leads'][number]
    expect(judge({ from: picture('in'), to: picture('out'), leads: [dp] }).finding('direction')?.reason.code).toBe(
      'wrong-way-round',
    )
  })
  ours('a retired lead and a run without one are blocked', () => {
    expect(
      judge({ from: host, to: device, leads: [{ grade: 'gen2', length: 0.5, more: { standing: 'retired' } }] }).words,
    ).toContain('retired and must not be used again')
    expect(judge({ from: host, to: device, leads: [] }).words).toBe('R-01 has no cable yet.')
  })
  ours('a lead that does not reach is blocked; one that just reaches is tight', () => {
    const at = (route: number) =>
      judge({ from: host, to: device, leads: [{ grade: 'gen2', length: 1 }], route }).finding('length')?.grade
    expect([at(0.9), at(0.95), at(1.01)]).toEqual(['clear', 'tight', 'blocked'])
  })
  ours('a link that falls is tight where nobody has said what must flow', () => {
    const slow = judge({ from: host, to: device, leads: [{ grade: 'usb2', length: 1 }] })
    expect(slow.run).toMatchObject({ grade: 'tight', mode: 'usb2' })
    const enough = judge({
      from: host,
      to: device,
      leads: [{ grade: 'usb2', length: 1 }],
      need: { kind: 'data', rate: 12e6 },
    })
    expect(enough.run.grade).toBe('clear')
  })
})

describe('pictures', () => {
  const fourK = { kind: 'picture', mode: { width: 3840, height: 2160, refresh: 60, bits: 8, chroma: '444' } } as const
  const out: OneRun['from'] = {
    connector: 'type-c',
    role: 'host',
    usb: 'gen2x1',
    displayport: { direction: 'out', link: 'hbr3' },
  }
  const display: OneRun['to'] = {
    kind: 'display',
    connector: 'type-c',
    role: 'device',
    usb: 'gen2x1',
    displayport: { direction: 'in', link: 'hbr3' },
  }
  ours('over type-C need high-speed pairs: a USB 2.0 lead carries none', () => {
    const { run, finding } = judge({ from: out, to: display, leads: [{ grade: 'usb2', length: 1 }], need: fourK })
    expect(run.grade).toBe('blocked')
    expect(finding('picture')).toMatchObject({
      have: 0,
      reason: { code: 'no-carrier', cause: 'no-link' },
      part: { label: 'C-1' },
    })
  })
  remembered('USB Type-C')('are bounded by the rating of the pairs: a 5 Gb/s lead carries HBR2', () => {
    const have = (grade: 'gen1' | 'gen2') =>
      judge({ from: out, to: display, leads: [{ grade, length: 1 }], need: fourK }).finding('picture')?.have
    expect(have('gen1')).toBeCloseTo(17.28e9, 0)
    expect(have('gen2')).toBeCloseTo(25.92e9, 0)
  })
  ours('behind a converting lead are bounded by both families', () => {
    const { finding } = judge({
      from: out,
      to: { kind: 'projector', connector: 'hdmi', hdmi: { direction: 'in', level: 'tmds-18' } },
      leads: [{ grade: 'hdmi-18', length: 2, ends: ['type-c', 'hdmi'], oneWay: true }],
      need: fourK,
    })
    expect(finding('picture')).toMatchObject({ grade: 'clear', have: 600e6 * 24 })
  })
  practice('beyond the reach of a lead name the length (passive HDMI 7 m)', () => {
    const { words, run } = judge({
      from: { connector: 'hdmi', hdmi: { direction: 'out', level: 'tmds-18' } },
      to: { kind: 'projector', connector: 'hdmi', hdmi: { direction: 'in', level: 'tmds-18' } },
      leads: [{ grade: 'hdmi-18', length: 10, ends: ['hdmi', 'hdmi'] }],
      need: fourK,
    })
    expect(run.grade).toBe('blocked')
    expect(words).toContain('HDMI 4.95 Gb/s')
    expect(words).toContain('10 m')
  })
  practice('of 1920x1080 at 60 Hz go through 10 m of plain passive HDMI, and no further than 15 m', () => {
    const over = (length: number) =>
      judge({
        from: { connector: 'hdmi', hdmi: { direction: 'out', level: 'tmds-18' } },
        to: { kind: 'projector', connector: 'hdmi', hdmi: { direction: 'in', level: 'tmds-18' } },
        leads: [{ grade: 'hdmi-10', length, ends: ['hdmi', 'hdmi'] }],
        need: { kind: 'picture', mode: { width: 1920, height: 1080, refresh: 60, bits: 8, chroma: '444' } },
      }).run.grade
    expect([over(10), over(15), over(15.1)]).toEqual(['clear', 'clear', 'blocked'])
  })
  ours('have nothing to travel on where the ports share nothing, and the port is blamed', () => {
    const { finding } = judge({ from: host, to: display, leads: [{ grade: 'gen2', length: 0.5 }], need: fourK })
    expect(finding('picture')).toMatchObject({
      grade: 'blocked',
      part: { label: 'Near, port' },
      reason: { cause: 'nothing-common' },
    })
  })
})
