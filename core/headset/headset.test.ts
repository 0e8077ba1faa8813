import { describe, expect } from 'vitest'
import { practice } from '../../tests/support/figures'
import { batteryCourse, encodedRate, leadForArea } from './headset'

// every value is common practice: about 2 h alone, about 3 h on a USB 3 type-A port, holds on 8 W, gains on 9.2 W at 90 Hz, drains slowly on 9.2 W at 120 Hz
const capacity = 16
const at90 = 8
const at120 = 9.7

describe('the battery of a headset', () => {
  practice('lasts about two hours alone, and about three with what a port gives', () => {
    expect(batteryCourse({ capacity, draw: at90, supply: 0 })).toEqual({ course: 'drains', hours: 2 })
    const onPort = batteryCourse({ capacity, draw: at90, supply: 2.5 })
    expect(onPort).toMatchObject({ course: 'drains' })
    if (onPort.course === 'drains') expect(onPort.hours).toBeCloseTo(2.91, 2)
  })
  practice('holds on 8 W, gains on 9.2 W at 90 Hz, and drains slowly on 9.2 W at 120 Hz', () => {
    expect(batteryCourse({ capacity, draw: at90, supply: 8 })).toEqual({ course: 'holds' })
    expect(batteryCourse({ capacity, draw: at90, supply: 9.2, start: 0.5 }).course).toBe('charges')
    expect(batteryCourse({ capacity, draw: at120, supply: 9.2 }).course).toBe('drains')
  })
  practice('charges no further than about 92 %', () => {
    expect(batteryCourse({ capacity, draw: at90, supply: 9.2, start: 0.95 })).toEqual({
      course: 'charges',
      hoursToCeiling: 0,
    })
  })
})

describe('the link of a headset', () => {
  practice('beyond the decoder a dearer cable buys no better picture', () => {
    expect(encodedRate({ measured: 1.6e9, decoder: 150e6 })).toEqual({
      rate: 150e6,
      limit: 'decoder',
      fasterCableHelps: false,
    })
    expect(encodedRate({ measured: 100e6, decoder: 150e6 })).toMatchObject({ rate: 100e6, fasterCableHelps: true })
  })
})

describe('the lead of a headset', () => {
  practice('2 m by 2 m takes 5 m, and seated use 3 m', () => {
    const area = leadForArea({ width: 2, depth: 2, portHeight: 0.5, headHeight: 1.7, toNearEdge: 0.8 })
    expect(area).toBeGreaterThan(4)
    expect(area).toBeLessThanOrEqual(5)
    expect(
      leadForArea({ width: 0.5, depth: 1, portHeight: 0.4, headHeight: 1.3, toNearEdge: 0.5 }),
    ).toBeLessThanOrEqual(3)
  })
})
