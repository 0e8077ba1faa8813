import fc from 'fast-check'
import { expect, it } from 'vitest'
import { boxOf, type Label, labelPlaces } from './label-places'

const size = { width: 900, height: 560 }
const spot = fc.record({ x: fc.integer({ min: -50, max: 950 }), y: fc.integer({ min: -50, max: 600 }) })
const label: fc.Arbitrary<Label> = fc.record({
  at: spot,
  also: fc.array(spot, { maxLength: 4 }),
  width: fc.integer({ min: 10, max: 260 }),
  sort: fc.constantFrom('joint' as const, 'pathway' as const),
})

it('no name covers another or leaves the drawing, however many there are', () => {
  fc.assert(
    fc.property(fc.array(label, { maxLength: 60 }), (labels) => {
      const boxes = labelPlaces(labels, [], size).flatMap((place, at) =>
        place ? boxOf(labels[at] as Label, place) : [],
      )
      for (const [at, one] of boxes.entries()) {
        expect(one.left >= 0 && one.top >= 0 && one.right <= size.width && one.bottom <= size.height).toBe(true)
        for (const other of boxes.slice(at + 1))
          expect(
            one.left >= other.right || other.left >= one.right || one.top >= other.bottom || other.top >= one.bottom,
          ).toBe(true)
      }
    }),
  )
})

it('a name goes round a mark that is in its way', () => {
  const name: Label = { at: { x: 300, y: 300 }, width: 90, sort: 'joint' }
  const [place] = labelPlaces([name], [name.at, { x: 330, y: 286 }], size)
  expect(place).toEqual({ dx: -7, dy: 22, anchor: 'start' })
})

it('a name that has room is written above its mark, and one that has none is left out', () => {
  const alone: Label = { at: { x: 300, y: 300 }, width: 90, sort: 'joint' }
  expect(labelPlaces([alone], [alone.at], size)).toEqual([{ dx: -7, dy: -11, anchor: 'start' }])
  expect(labelPlaces([{ ...alone, width: 2000 }], [], size)).toEqual([null])
})

it('the name of a pathway goes further along it where its middle has no room', () => {
  const name: Label = { at: { x: 300, y: 300 }, also: [{ x: 500, y: 300 }], width: 90, sort: 'pathway' }
  const crowd = [270, 290, 310, 330].flatMap((x) => [290, 300, 310].map((y) => ({ x, y })))
  expect(labelPlaces([name], crowd, size)).toEqual([{ dx: 200, dy: -6, anchor: 'middle' }])
})
