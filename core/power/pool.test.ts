import { expect, it } from 'vitest'
import { passOn, sharePool, strongerOf } from './pool'

// every value is common practice

it('three 27 W ports that share 60 W leave 6 W for the third', () => {
  expect(sharePool({ kind: 'shared', total: 60, ports: [27, 27, 27] }, [0, 1, 2])).toEqual([27, 27, 6])
  expect(sharePool({ kind: 'shared', total: 60, ports: [27, 27, 27] }, [2, 0])).toEqual([27, 0, 27])
})
it('a 100 W + 18 W charger falls to 60 W on the big port once the other is used', () => {
  const pool = { kind: 'drops', alone: [100, 18], together: [60, 18] } as const
  expect(sharePool(pool, [0])).toEqual([100, 0])
  expect(sharePool(pool, [0, 1])).toEqual([60, 18])
})
it('assured ports do not mind each other', () => {
  expect(sharePool({ kind: 'assured', ports: [65, 30] }, [0, 1])).toEqual([65, 30])
})
it('a 100 W hub that keeps 5 W passes on 95 W, and never less than nothing', () => {
  expect(passOn(100, 5)).toBe(95)
  expect(passOn(3, 5)).toBe(0)
})
it('of two supplies the stronger counts', () => {
  expect(strongerOf([57, 87])).toBe(87)
  expect(strongerOf([])).toBe(0)
})
