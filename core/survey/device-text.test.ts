import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { deviceSchema } from '../vocabulary/device'
import {
  batteryExample,
  batteryText,
  installedExample,
  installedText,
  noiseExample,
  noiseText,
  parseBattery,
  parseInstalled,
  parseNoise,
} from './device-text'
import { parsePoints, pointsText } from './points-text'
import { lineMoved } from './port-line'

describe('what is said of a device in a line', () => {
  it('its examples are read, and read back', () => {
    expect(parseInstalled(`${installedExample}\nfirmware F 9 since 2026-01-10`)).toEqual({
      ok: true,
      value: [
        { what: 'system', version: '12.4', on: '2026-03-02' },
        { what: 'firmware', version: 'F 9', on: '2026-01-10' },
      ],
    })
    expect(parseNoise(noiseExample)).toEqual({ ok: true, value: { level: 34, loaded: 52, distance: 1 } })
    expect(parseNoise('52 dB at 1 m')).toEqual({ ok: true, value: { level: 52, distance: 1 } })
    expect(parseNoise('49,5 at 3', 'ft')).toMatchObject({ ok: true, value: { level: 49.5, distance: 3 * 0.3048 } })
    expect(parseBattery(batteryExample)).toEqual({
      ok: true,
      value: { wattHours: 14, draw: 8, uses: [{ refresh: 120, draw: 9.5 }] },
    })
  })
  it('comes back the same, whatever the figures', () => {
    const day = fc.constantFrom('2026-01-31', '2025-12-01')
    const installed = fc.array(
      fc.record({
        what: fc.constantFrom('system', 'firmware', 'driver'),
        version: fc.stringMatching(/^[A-Z0-9.]{1,12}$/),
        on: day,
      }),
      { maxLength: 6 },
    )
    const tenths = (from: number, to: number) => fc.integer({ min: from * 10, max: to * 10 }).map((value) => value / 10)
    fc.assert(
      fc.property(
        installed,
        tenths(0, 140),
        tenths(1, 90),
        tenths(1, 200),
        fc.constantFrom('m', 'ft'),
        (list, level, far, watts, unit) => {
          const value = { installed: list, noise: { level, distance: far }, battery: { wattHours: far, draw: watts } }
          deviceSchema.parse({ id: 'd', name: 'D', kind: 'headset', ...value })
          expect(parseInstalled(installedText(list as never))).toEqual({ ok: true, value: list })
          expect(parseNoise(noiseText(value.noise, unit as 'm'), unit as 'm')).toEqual({ ok: true, value: value.noise })
          expect(parseBattery(batteryText(value.battery))).toEqual({ ok: true, value: value.battery })
        },
      ),
    )
  })
  it.each(['loud', '52', '52 at', '900 at 1', '52 at 0'])(
    '%j is no level of sound, and says how to write one',
    (text) => {
      expect(parseNoise(text)).toMatchObject({ ok: false, problem: expect.stringContaining(noiseExample) })
    },
  )
  it.each(['system', 'system 12', 'toaster 1 since 2026-01-01', 'system since 2026-01-01', 'system 1 since May'])(
    '%j is not what is installed',
    (text) => {
      expect(parseInstalled(text)).toMatchObject({ ok: false, problem: expect.stringContaining(installedExample) })
    },
  )
  it('a line of ports moves to the place of another and back', () => {
    expect(lineMoved('a\nb\nc', 0, 2)).toBe('b\nc\na')
    expect(lineMoved(lineMoved('a\nb\nc', 0, 2), 2, 0)).toBe('a\nb\nc')
    expect(lineMoved('a\nb', 0, -1)).toBe('a\nb')
    expect(lineMoved('a\nb', 5, 0)).toBe('a\nb')
  })
})

describe('points of a pathway, a line each', () => {
  const floors = [
    { id: 'g', name: 'Ground' },
    { id: 'u', name: 'Upper floor' },
  ]
  const places = [{ id: 'd', name: 'Desk, rear', mains: true, at: { floor: 'g', x: 2, y: 3 } }]
  it('are figures or places, and may go on upon another floor', () => {
    expect(parsePoints('6.4, 2, 2.5\nDesk, rear, 0.7\nUpper floor: 6.4, 2, 0', { floor: 'g', floors, places })).toEqual(
      {
        ok: true,
        value: [
          { floor: 'g', x: 6.4, y: 2, height: 2.5 },
          { floor: 'g', x: 2, y: 3, height: 0.7 },
          { floor: 'u', x: 6.4, y: 2, height: 0 },
        ],
      },
    )
  })
  it.each([
    ['', 'two points'],
    ['1, 2, 3', 'two points'],
    ['1, 2, 3\n1, 2', 'Line 2'],
    ['1, 2, 3\nNowhere, 1', 'Line 2'],
    ['1, 2, 3\nx, y, z', 'Line 2'],
    [Array(300).fill('1, 2, 3').join('\n'), 'at most'],
  ])('%j says what is wrong', (text, reason) => {
    expect(parsePoints(text, { floor: 'g', floors, places })).toMatchObject({
      ok: false,
      problem: expect.stringContaining(reason),
    })
  })
  it('come back the same, in either unit and before the corner as well', () => {
    const metres = fc
      .integer({ min: -90_000, max: 90_000 })
      .filter((value) => Math.abs(value) >= 10 || value === 0)
      .map((value) => value / 1000)
    const point = fc.record({ floor: fc.constantFrom('g', 'u'), x: metres, y: metres, height: metres })
    fc.assert(
      fc.property(fc.array(point, { minLength: 2, maxLength: 6 }), fc.constantFrom('m', 'ft'), (points, unit) => {
        const context = { floor: 'g', floors, places, unit: unit as 'm' }
        expect(parsePoints(pointsText(points, context), context)).toEqual({ ok: true, value: points })
      }),
    )
  })
})
