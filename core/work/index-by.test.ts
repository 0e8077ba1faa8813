import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { cases } from '../../tests/support/laws'
import { manyBy, oneBy } from './index-by'
import { changeBetween, type ListChange, madeFrom } from './kept'

type Item = { keys: readonly string[] }
const keysOf = ({ keys }: Item): readonly string[] => keys
const one = oneBy(keysOf)
const many = manyBy(keysOf)

const item: fc.Arbitrary<Item> = fc.record({ keys: fc.array(fc.constantFrom('a', 'b', 'c', 'd'), { maxLength: 3 }) })
const step = fc.record({
  replaced: fc.array(fc.tuple(fc.nat(8), item), { maxLength: 2 }),
  removed: fc.array(fc.nat(8), { maxLength: 1 }),
  added: fc.array(item, { maxLength: 2 }),
})

/** A list as a step leaves it, and what became of it. */
function stepped(
  list: readonly Item[],
  { replaced, removed, added }: typeof step extends fc.Arbitrary<infer S> ? S : never,
) {
  const now = new Map(replaced.flatMap(([at, is]) => (list[at] ? [[list[at], is] as const] : [])))
  const gone = new Set(removed.flatMap((at) => (list[at] && !now.has(list[at]) ? [list[at]] : [])))
  const change: ListChange<Item> = { replaced: [...now], removed: [...gone], added, reordered: false }
  const after = [...list.flatMap((each) => (gone.has(each) ? [] : [now.get(each) ?? each])), ...added]
  return { after, change }
}

describe('an index that is brought along', () => {
  it('is the one of a list that nobody has seen before', () => {
    fc.assert(
      fc.property(fc.array(item, { maxLength: 8 }), fc.array(step, { maxLength: 12 }), (first, steps) => {
        let list: readonly Item[] = first
        one(list)
        many(list)
        for (const each of steps) {
          const { after, change } = stepped(list, each)
          const made = madeFrom(list, after, change)
          expect(changeBetween(list, made)).toBe(change)
          expect(new Map(one.known(made))).toEqual(one([...made]))
          expect(new Map(many.known(made))).toEqual(many([...made]))
          list = made
        }
      }),
      { numRuns: cases(300) },
    )
  })

  it('is worked out when it is asked for where the order is another', () => {
    const list = [{ keys: ['a'] }, { keys: ['a'] }]
    one(list)
    const turned = madeFrom<Item, readonly Item[]>(list, list.toReversed(), {
      replaced: [],
      added: [],
      removed: [],
      reordered: true,
    })
    expect(one.known(turned)).toBeUndefined()
    expect(one(turned).get('a')).toBe(list[0])
    expect(changeBetween(list, [...turned])).toBeUndefined()
  })
})
