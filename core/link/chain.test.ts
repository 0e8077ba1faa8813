import { describe, expect, it } from 'vitest'
import { judge, type OneRun } from '../../tests/support/one-run'
import { trialSchema } from '../plan/cable'
import { LINK_MODES, type LinkMode } from '../standards/link-modes'
import { trialOf } from './chain'

const trial = (more: object) =>
  trialSchema.parse({ basis: 'measured', on: '2026-04-01', tried: 'usb4-40', cameUp: 'usb4-40', ...more })

describe('what trials say', () => {
  it('a pass counts for its own mode only', () => {
    expect(trialOf([trial({})], 'usb4-40', undefined)?.passed).toBe(true)
    expect(trialOf([trial({})], 'usb4-20', undefined)).toBeNull()
  })
  it('a link that came up lower rules out all in between', () => {
    const fell = [trial({ cameUp: 'usb2' })]
    expect(trialOf(fell, 'gen2x1', undefined)?.passed).toBe(false)
    expect(trialOf([trial({ tried: 'gen2x1', cameUp: 'usb2' })], 'gen1x2', undefined)?.passed).toBe(false)
    expect(trialOf([trial({ tried: 'gen1x1', cameUp: 'usb2' })], 'gen2x1', undefined)?.passed).toBe(false)
    expect(trialOf(fell, 'usb2', undefined)?.passed).toBe(true)
  })
  it('a drop in a soak rules out nothing below the mode it dropped in; nothing at all rules out everything below', () => {
    expect(trialOf([trial({ basis: 'soaked', cameUp: null })], 'usb4-20', undefined)).toBeNull()
    expect(trialOf([trial({ basis: 'soaked', cameUp: null })], 'usb4-40', undefined)?.passed).toBe(false)
    expect(trialOf([trial({ cameUp: null })], 'usb2', undefined)?.passed).toBe(false)
  })
  it('counts on the controller it was made on, or on any where none was noted', () => {
    const onCard = [trial({ controller: 'card' })]
    expect(trialOf(onCard, 'usb4-40', 'card')?.passed).toBe(true)
    expect(trialOf(onCard, 'usb4-40', 'board')).toBeNull()
    expect(trialOf([trial({})], 'usb4-40', 'board')?.passed).toBe(true)
  })
  it('what fails rules out all that asks as much of the same pairs, by whatever name', () => {
    const verdicts = (cameUp: LinkMode | null, tried: LinkMode, basis = 'soaked') =>
      LINK_MODES.filter(
        (mode) => trialOf([trial({ basis, tried, cameUp } as never)], mode, undefined)?.passed === false,
      )
    expect(verdicts('tbt3-20', 'tbt3-40')).toEqual(['usb4-20', 'tbt3-40', 'usb4-40', 'usb4-80'])
    expect(verdicts(null, 'tbt3-40')).toEqual(['tbt3-40', 'usb4-40', 'usb4-80'])
    expect(verdicts('gen1x1', 'gen2x1')).toEqual([
      'gen1x2',
      'gen2x1',
      'gen2x2',
      'tbt3-20',
      'usb4-20',
      'tbt3-40',
      'usb4-40',
      'usb4-80',
    ])
    expect(verdicts('usb4-40', 'usb4-40')).toEqual([])
  })
  it('the latest counts, and on one day the soak', () => {
    const dropped = trial({ basis: 'soaked', cameUp: null })
    expect(trialOf([trial({}), dropped], 'usb4-40', undefined)?.passed).toBe(false)
    expect(trialOf([dropped, trial({ on: '2026-05-01' })], 'usb4-40', undefined)?.passed).toBe(true)
  })
})

describe('leads in a row', () => {
  const host: OneRun['from'] = { connector: 'type-a', role: 'host', usb: 'gen1x1' }
  const device: OneRun['to'] = { connector: 'type-b', role: 'device', usb: 'gen1x1' }
  const extension = (length: number, construction: 'passive' | 'active' = 'passive') =>
    ({ grade: 'gen1', length, construction, ends: ['type-a', 'type-a socket'] }) as OneRun['leads'][number]
  const tail = (length: number) => ({ grade: 'gen1', length, ends: ['type-a', 'type-b'] }) as OneRun['leads'][number]
  const modeOf = (...leads: OneRun['leads']) => judge({ from: host, to: device, leads }).run.mode

  it('share one budget while they are passive', () => {
    expect(modeOf(extension(0.5), tail(1.5))).toBe('gen1x1')
    expect(modeOf(extension(0.5), tail(1.6))).toBe('usb2')
  })
  it('start anew behind an active one', () => {
    expect(modeOf(extension(5, 'active'), tail(3))).toBe('gen1x1')
    expect(modeOf(extension(5.1, 'active'), tail(1))).toBeNull()
  })
  it('that a trial failed in are out, under either policy', () => {
    const failed = {
      ...tail(1),
      evidence: [{ basis: 'measured', on: '2026-04-01', tried: 'gen1x1', cameUp: 'usb2' }],
    } as OneRun['leads'][number]
    for (const length of ['book', 'bench'] as const) {
      const { run, words } = judge({ from: host, to: device, leads: [failed], policy: { length } })
      expect(run.mode).toBe('usb2')
      expect(words).toContain('was tried at USB 5 Gb/s (Gen 1) and did not hold it')
    }
  })
})
