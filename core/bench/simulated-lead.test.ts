import { describe, expect, it } from 'vitest'
import { dropSecond, type SoundLead, sampleAt } from './simulated-lead'

const sound: SoundLead = {
  mode: 'usb4-40',
  write: 2_400_000_000 * 8,
  read: 2_600_000_000 * 8,
  watts: 60,
  voltsLost: 0.2,
  picture: true,
}
const leads = Array.from({ length: 60 }, (_, at) => `cable-${at}`)

describe('what the simulated meter shows', () => {
  it('is near what a sound lead should do, and the same each time', () => {
    const sample = sampleAt(30, 'cable-1', 'as marked', sound)
    expect(sample).toEqual(sampleAt(30, 'cable-1', 'as marked', sound))
    expect(sample).toMatchObject({ mode: 'usb4-40', picture: true })
    expect(Math.abs((sample.write ?? 0) / (sound.write ?? 1) - 1)).toBeLessThan(0.05)
    expect(Math.abs((sample.watts ?? 0) - 60)).toBeLessThan(2)
    expect(sample.celsius).toBeLessThan(40)
  })
  it('a charge-only lead charges and carries nothing', () => {
    const sample = sampleAt(5, 'cable-1', 'charge-only', sound)
    expect(sample).toMatchObject({ mode: null, write: 0, read: 0, picture: false })
    expect(sample.watts).toBeGreaterThan(50)
  })
  it('a marginal lead holds for 45 seconds and has dropped by 90 (common practice), not all at one time', () => {
    for (const cable of leads) {
      expect(sampleAt(44.5, cable, 'drops', sound).mode).toBe('usb4-40')
      expect(sampleAt(90, cable, 'drops', sound).mode).toBeNull()
      expect(sampleAt(dropSecond(cable), cable, 'drops', sound).mode).toBeNull()
    }
    expect(new Set(leads.map(dropSecond)).size).toBeGreaterThan(10)
  })
  it('one that heats gets too hot to hold within some minutes, and loses more volts', () => {
    expect(sampleAt(10, 'cable-1', 'heats', sound).celsius).toBeLessThan(45)
    expect(sampleAt(180, 'cable-1', 'heats', sound).celsius).toBeGreaterThan(60)
    expect(sampleAt(10, 'cable-1', 'heats', sound).voltsLost).toBeGreaterThan(0.35)
  })
  it('says nothing of what is not measured there', () => {
    const nothing: SoundLead = { mode: null, write: null, read: null, watts: null, voltsLost: null, picture: null }
    expect(sampleAt(5, 'cable-1', 'as marked', nothing)).toMatchObject(nothing)
  })
})
