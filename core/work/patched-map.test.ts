import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { patched } from './patched-map'

describe('a patched map', () => {
  it('is what a map is to which the same was done', () => {
    const change = fc.tuple(fc.nat(120), fc.option(fc.nat(), { nil: undefined }))
    fc.assert(
      fc.property(
        fc.array(fc.nat(120)),
        fc.array(fc.array(change, { maxLength: 5 }), { maxLength: 40 }),
        (keys, all) => {
          const plain = new Map(keys.map((key) => [key, key]))
          let map: ReadonlyMap<number, number> = new Map(plain)
          for (const changes of all) {
            const before = [...map]
            const next = patched(map, new Map(changes))
            expect([...map]).toEqual(before)
            for (const [key, value] of new Map(changes))
              if (value === undefined) plain.delete(key)
              else plain.set(key, value)
            map = next
            expect(new Map(map)).toEqual(plain)
            expect([map.size, [...map.keys()].length, [...map.values()].length]).toEqual(Array(3).fill(plain.size))
            for (let key = 0; key <= 120; key += 1)
              expect([map.get(key), map.has(key)]).toEqual([plain.get(key), plain.has(key)])
          }
        },
      ),
    )
  })
})
