import { describe, expect, it } from 'vitest'
import { judge, type OneRun } from '../../tests/support/one-run'

describe('leads in a row', () => {
  const host: OneRun['from'] = { connector: 'type-a', role: 'host', usb: 'gen1x1' }
  const device: OneRun['to'] = { connector: 'type-b', role: 'device', usb: 'gen1x1' }
  const extension = (length: number, construction: 'passive' | 'active' = 'passive') =>
    ({ grade: 'gen1', length, construction, ends: ['type-a', 'type-a socket'] }) as OneRun['leads'][number]
  const tail = (length: number) => ({ grade: 'gen1', length, ends: ['type-a', 'type-b'] }) as OneRun['leads'][number]
  const modeOf = (...leads: OneRun['leads']) => judge({ from: host, to: device, leads }).run.mode

  it('share one budget while they are passive', () => {
    expect(modeOf(extension(1), tail(2))).toBe('gen1x1')
    expect(modeOf(extension(1), tail(2.1))).toBe('usb2')
    // extensions alone may be no longer than one
    expect(modeOf(extension(0.6), extension(0.5), tail(0.5))).toBe('usb2')
  })
  it('start anew behind an active one', () => {
    expect(modeOf(extension(5, 'active'), tail(3))).toBe('gen1x1')
    expect(modeOf(extension(5.2, 'active'), tail(1))).toBeNull()
  })
  it('that passed alone use up their share of a row all the same: two 5 m leads do not make 10 m', () => {
    const passed = (lead: OneRun['leads'][number]) => ({
      ...lead,
      evidence: [{ basis: 'soaked', on: '2026-04-01', tried: 'gen1x1', cameUp: 'gen1x1', seconds: 600 }],
    })
    const under = (...leads: OneRun['leads']) =>
      judge({ from: host, to: device, leads, policy: { length: 'bench' } }).run.mode
    expect(under(passed(tail(5)))).toBe('gen1x1')
    expect(under(passed(extension(5)), passed(tail(5)))).not.toBe('gen1x1')
  })
  it('count as the length they are sold as, within 3 % (common practice), and as themselves for what they span', () => {
    // 3.3, 6.6, 10 and 16 ft
    const passive = (length: number) => modeOf(tail(length))
    expect([passive(3.048), passive(3.09), passive(3.1)]).toEqual(['gen1x1', 'gen1x1', 'usb2'])
    expect(modeOf(extension(1.00584), tail(1.8))).toBe('gen1x1')
    const { finding } = judge({ from: host, to: device, leads: [tail(3.048)], route: 3.04 })
    expect(finding('length')).toMatchObject({ grade: 'tight', have: 3.048 })
  })
  it('that a trial failed in are out, under either policy', () => {
    const failed = {
      ...tail(1),
      evidence: [{ basis: 'measured', on: '2026-04-01', tried: 'gen1x1', cameUp: 'usb2' }],
    } as OneRun['leads'][number]
    for (const length of ['book', 'bench'] as const) {
      const { run, words } = judge({ from: host, to: device, leads: [failed], policy: { length } })
      expect(run.mode).toBe('usb2')
      expect(words).toContain('was tried here at USB 5 Gb/s (Gen 1) and did not come up')
    }
  })
})
