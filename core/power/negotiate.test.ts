import { describe, expect } from 'vitest'
import { ours, practice, publishedIn, remembered } from '../../tests/support/figures'
import { type Port, portSchema } from '../vocabulary/device'
import { givenWatts, levelsOf, negotiate } from './negotiate'

const port = (more: object): Port => portSchema.parse({ id: 'p', name: 'P', connector: 'type-c', ...more })
const charger = (gives: number) => port({ role: 'host', gives })
const through = (amps: number, volts = 20) => [{ amps, volts }]

describe('what a charger offers', () => {
  remembered('USB Power Delivery, power rules').each([
    [15, [[5, 3]]],
    [
      27,
      [
        [5, 3],
        [9, 3],
      ],
    ],
    [
      45,
      [
        [5, 3],
        [9, 3],
        [15, 3],
      ],
    ],
    [
      60,
      [
        [5, 3],
        [9, 3],
        [15, 3],
        [20, 3],
      ],
    ],
    [
      100,
      [
        [5, 3],
        [9, 3],
        [15, 3],
        [20, 5],
      ],
    ],
    [
      140,
      [
        [5, 3],
        [9, 3],
        [15, 3],
        [20, 5],
        [28, 5],
      ],
    ],
    [
      240,
      [
        [5, 3],
        [9, 3],
        [15, 3],
        [20, 5],
        [28, 5],
        [36, 5],
        [48, 5],
      ],
    ],
  ])('%d W', (rating, levels) => {
    expect(levelsOf(charger(rating)).map(({ volts, amps }) => [volts, amps])).toEqual(levels)
  })
  remembered('USB Power Delivery, power rules')('is its rating and no more where that is less than a full step', () => {
    expect(levelsOf(charger(18)).at(-1)).toEqual({ volts: 9, amps: 2 })
  })
})

describe('what arrives', () => {
  practice('is 60 W of a 100 W charger through an unmarked lead', () => {
    expect(negotiate(charger(100), through(3))).toMatchObject({ watts: 60, offered: 100, limit: 'lead' })
  })
  remembered('USB Power Delivery, cables of 3 A and 5 A')(
    'is all of it through a 5 A lead, and 240 W only through an extended range one',
    () => {
      expect(negotiate(charger(100), through(5))).toMatchObject({ watts: 100, limit: 'supply' })
      expect(negotiate(charger(240), through(5))).toMatchObject({ watts: 100, limit: 'lead' })
      expect(negotiate(charger(240), through(5, 50))).toMatchObject({ watts: 240, limit: 'supply' })
    },
  )
  ours('is set by the weakest lead in a row, and nothing through one without power', () => {
    expect(negotiate(charger(100), [...through(5), ...through(3)]).watts).toBe(60)
    expect(negotiate(charger(100), through(0))).toMatchObject({ watts: 0, level: null })
  })
})

describe('levels and voltages that are stated', () => {
  const plate = port({
    role: 'host',
    levels: [
      { volts: 5, amps: 3 },
      { volts: 20, amps: 3.25 },
    ],
  })
  ours('the plate of a charger counts, not what its rating would make of it', () => {
    expect(levelsOf(plate)).toHaveLength(2)
    expect(givenWatts(plate)).toBe(65)
    expect(negotiate(plate, through(3)).watts).toBe(60)
  })
  ours('a device that accepts few voltages gets the best of those, and is the limit', () => {
    expect(negotiate(charger(100), through(5), [5, 9])).toMatchObject({
      watts: 27,
      limit: 'device',
      level: { volts: 9 },
    })
    expect(negotiate(charger(100), through(5), [12])).toMatchObject({ watts: 0, limit: 'device', level: null })
    expect(negotiate(charger(100), through(5), [5, 9, 15, 20])).toMatchObject({ watts: 100, limit: 'supply' })
  })
})

describe('what a host port gives unless its data sheet says more', () => {
  publishedIn('USB 2.0 and USB 3.2, default current').each([
    [{ usb: 'usb2' }, 2.5],
    [{ usb: 'gen1x1' }, 4.5],
    [{ usb: 'gen2x1', gives: 15 }, 15],
    [{}, 0],
    [{ usb: 'gen1x1', role: 'device' }, 0],
    [{ usb: 'gen1x1', connector: 'hdmi' }, 0],
  ])('%o: %d W', (more, watts) => {
    expect(givenWatts(port({ role: 'host', ...(more as object) }))).toBe(watts)
  })
})
