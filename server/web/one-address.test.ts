import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { onePath } from './one-address'

const plainStep = fc
  .string({ unit: 'grapheme-ascii', minLength: 1, maxLength: 12 })
  .filter((step) => step !== '.' && step !== '..')
/** A letter written as itself or by its number. */
const written = (letter: string, asNumber: boolean): string =>
  asNumber || /[^\w.~-]/.test(letter) ? `%${letter.charCodeAt(0).toString(16).padStart(2, '0')}` : letter

describe('an address', () => {
  it('has one form however its letters are written', () => {
    fc.assert(
      fc.property(
        fc.array(plainStep, { minLength: 1, maxLength: 5 }),
        fc.infiniteStream(fc.boolean()),
        (steps, how) => {
          const path = steps
            .map((step) => [...step].map((each) => written(each, how.next().value as boolean)).join(''))
            .join('/')
          expect(onePath(`/${path}`)).toBe(`/${steps.map(encodeURIComponent).join('/')}`)
          expect(onePath(`//${path.replaceAll('/', '//')}/`)).toBe(onePath(`/${path}`))
        },
      ),
    )
  })
  it('in its one form stays as it is, and is read by the framework as the same names', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme', maxLength: 60 }), (text) => {
        const one = onePath(`/${text}`)
        if (one === null) return
        expect(onePath(one)).toBe(one)
        expect(new URL(one, 'http://hallway').pathname).toBe(one)
      }),
    )
  })
  it.each(['/a/%2e%2e/b', '/a/../b', '/.', '/%C3%A9', '/%', '/%E0%A4', '/a%00', '/😀'])(
    'that names nothing is none: %s',
    (path) => {
      expect(onePath(path)).toBeNull()
    },
  )
  it('keeps what is written twice over as it is', () => {
    expect(onePath('/sites/x/%2565lsewhere')).toBe('/sites/x/%2565lsewhere')
    expect(onePath('/sites/a%2Fb')).toBe('/sites/a%2Fb')
  })
})
