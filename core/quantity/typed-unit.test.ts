import fc from 'fast-check'
import { expect, it } from 'vitest'
import { parseRoute } from '../route/legs'
import { parseLength, parseOffset } from './length'
import { withTypedUnit } from './typed-unit'

const units = fc.constantFrom('m' as const, 'ft' as const)
const figure = fc.double({ min: 0.5, max: 90, noNaN: true }).map((value) => value.toFixed(2))

it('what was typed bare means the same in either unit, once its unit stands behind it', () => {
  fc.assert(
    fc.property(figure, units, units, (text, typed, now) => {
      expect(parseLength(withTypedUnit(text, typed), now)).toEqual(parseLength(text, typed))
      expect(parseOffset(withTypedUnit(`-${text}`, typed), now)).toEqual(parseOffset(`-${text}`, typed))
    }),
  )
})

it('legs of a route as well, and a diagonal by its two sides', () => {
  fc.assert(
    fc.property(fc.array(figure, { minLength: 2, maxLength: 5 }), units, units, (figures, typed, now) => {
      const legs = figures.map((each, at) => `${['down', 'tray', 'along the desk'][at % 3]} ${each}`)
      const text = [...legs, `diagonal ${figures[0]} x ${figures[1]}`].join(', ')
      expect(parseRoute(withTypedUnit(text, typed), now)).toEqual(parseRoute(text, typed))
    }),
  )
})

it('what has a unit, and what is no length, is left as it is', () => {
  for (const text of ['', '4.2 m', '14 ft', '13\' 9"', '13 ft 9 1/2 in', 'far away', '4 m, tray'])
    expect(withTypedUnit(text, 'm')).toBe(text)
})
