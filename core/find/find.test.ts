import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { demo } from '../../tests/support/demo-plan'
import { indexPlan } from '../plan/site-index'
import { find, wordsOf } from './find'

const index = indexPlan(demo)
const found = (text: string) => find(index, text).map(({ kind, name }) => `${kind} ${name}`)

describe('finding', () => {
  it('finds runs, cables, devices, places, needs and kinds by any word of them, in any order', () => {
    for (const { tag } of demo.runs) expect(found(tag)[0]).toBe(`run ${tag}`)
    for (const { tag } of demo.cables) expect(found(tag.toLowerCase())[0]).toBe(`cable ${tag}`)
    for (const { name } of demo.devices)
      expect(found(name.split(' ').toReversed().join(' ')), name).toContain(`device ${name}`)
    for (const { name } of [...demo.places]) expect(found(name)).toContain(`place ${name}`)
    for (const { name } of demo.kinds) expect(found(name)).toContain(`kind ${name}`)
  })
  it('finds nothing where nothing is asked, and only what has every word', () => {
    expect([find(index, ''), find(index, '  ')]).toEqual([[], []])
    fc.assert(
      fc.property(
        fc.constantFrom('gallery', 'laptop', 'c-00', 'desk', 'zzz'),
        fc.constantFrom('dock', 'r-', '4'),
        (a, b) => {
          const both = new Set(found(`${a} ${b}`))
          for (const each of both) {
            expect(found(a)).toContain(each)
            expect(found(b)).toContain(each)
          }
          expect(new Set(found(`${b}  ${a}`))).toEqual(both)
        },
      ),
    )
    expect(wordsOf(' A  b ')).toEqual(['a', 'b'])
  })
})
