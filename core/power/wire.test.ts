import { describe, expect } from 'vitest'
import { ours, practice, publishedIn } from '../../tests/support/figures'
import { gaugeDiameter, loopDrop, loopOhms, ohmsPerMetre, wireDrop } from './wire'

// Handbook table of solid annealed copper at 20 degrees: gauge, diameter in mm, ohms per kilometre (ASTM B258, as printed in wire tables)
const HANDBOOK: [number, number, number][] = [
  [10, 2.588, 3.277],
  [12, 2.053, 5.211],
  [14, 1.628, 8.286],
  [16, 1.291, 13.17],
  [18, 1.024, 20.95],
  [20, 0.8118, 33.31],
  [22, 0.6438, 52.96],
  [24, 0.5106, 84.22],
  [26, 0.4049, 133.9],
  [28, 0.3211, 212.9],
  [30, 0.2546, 338.6],
  [32, 0.2019, 538.3],
]

describe('wire by gauge', () => {
  publishedIn('handbook table of wire gauges').each(HANDBOOK)(
    'AWG %d is %d mm and %d ohm/km',
    (awg, diameter, ohms) => {
      expect(gaugeDiameter(awg)).toBeCloseTo(diameter, 3)
      expect(Math.abs(ohmsPerMetre(awg) * 1000 - ohms) / ohms).toBeLessThan(0.002)
    },
  )
  publishedIn('IEC 60028')('warm copper loses more: 0.393 % a degree', () => {
    expect(ohmsPerMetre(22, 70) / ohmsPerMetre(22)).toBeCloseTo(1 + 0.00393 * 50, 6)
  })
})

describe('what a lead loses', () => {
  ours('rises with length and current, and its watts with current squared', () => {
    const at = (length: number, amps: number) => {
      const drop = wireDrop({ awg: 22, length, amps })
      if (!drop.ok) throw new Error(drop.problem)
      return drop.value
    }
    expect(at(2, 5).supply).toBeCloseTo(2 * at(1, 5).supply, 9)
    expect(at(1, 4).watts).toBeCloseTo(4 * at(1, 2).watts, 9)
    expect(at(1, 3).allowed).toBe(true)
    expect(at(4, 5).allowed).toBe(false)
    expect(at(1, 0)).toMatchObject({ total: 0, watts: 0, allowed: true })
  })
  practice('a good lead that lost 0.543 V at 5 A has a loop of 0.109 ohm and takes 2.7 W', () => {
    const loop = loopOhms(0.543, 5)
    expect(loop).toBeCloseTo(0.1086, 4)
    expect(loopDrop(loop, 5).total).toBeCloseTo(0.543, 9)
    expect(loopDrop(loop, 5).watts).toBeCloseTo(2.715, 3)
  })
  ours.each([
    [{ awg: 41, length: 1, amps: 1 }, 'gauge'],
    [{ awg: Number.NaN, length: 1, amps: 1 }, 'gauge'],
    [{ awg: 22, length: 1, amps: -1 }, 'current'],
    [{ awg: 22, length: 1, amps: 1, celsius: 500 }, 'temperature'],
  ])('%o is refused for its %s', (run, what) => {
    const drop = wireDrop(run)
    expect(!drop.ok && drop.problem).toContain(what)
  })
})
