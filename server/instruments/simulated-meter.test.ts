import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { type MeterSample, type SoundLead, sampleAt } from '../../core/bench/simulated-lead'
import { playMeter } from './simulated-meter'

beforeEach(() => void vi.useFakeTimers())
afterEach(() => void vi.useRealTimers())

const nothing = { write: null, read: null, watts: null, voltsLost: null, picture: null }
const sound: SoundLead = { ...nothing, mode: 'usb4-40' }

it('shows a sample twice a second until it is stopped, at the pace of its clock', () => {
  const seen: MeterSample[] = []
  const stop = playMeter({ cable: 'cable-1', lead: 'as marked', sound, pace: 30 }, (sample) => seen.push(sample))
  expect(seen).toEqual([sampleAt(0, 'cable-1', 'as marked', sound)])
  vi.advanceTimersByTime(1000)
  expect(seen.map(({ seconds }) => seconds)).toEqual([0, 15, 30])
  stop()
  vi.advanceTimersByTime(5000)
  expect(seen).toHaveLength(3)
})
it('stops by itself after an hour', () => {
  let count = 0
  playMeter({ cable: 'cable-1', lead: 'as marked', sound, pace: 1 }, () => (count += 1))
  vi.advanceTimersByTime(2 * 3600 * 1000)
  expect(count).toBe(7201)
  expect(vi.getTimerCount()).toBe(0)
})
