import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { whyNotNewName } from './new-name'

describe('a new name', () => {
  it.each([
    'Egil',
    'Égil Ødegård',
    'O’Brien',
    'Jean-Luc 2',
    'Ελένη',
    'Николай',
    'יעל',
    'محمد',
    '田中 太郎',
    'タナカ Ken',
    '김 Lee',
    'สมชาย',
    '12',
  ])('is taken: %s', (name) => {
    expect(whyNotNewName(name)).toBeNull()
  })
  it.each([
    ['Еgil', 'a Cyrillic E before Latin letters'],
    ['Egіl', 'a Cyrillic i in it'],
    ['Αda', 'a Greek A'],
    ['Николaй', 'a Latin a'],
  ])('of mixed scripts is not: %s, %s', (name) => {
    expect(whyNotNewName(name)).toContain('different scripts')
  })
  it('with a letter that nobody sees is not, wherever it stands', () => {
    const unseen = [
      '\u200b',
      '\u200c',
      '\u200d',
      '\u2060',
      '\ufeff',
      '\u00ad',
      '\u202e',
      '\u2066',
      '\u034f',
      '\u115f',
      '\u3164',
      '\u2800',
      '\u00a0',
    ]
    fc.assert(
      fc.property(fc.constantFrom(...unseen), fc.nat(4), (letter, at) => {
        expect(whyNotNewName(`${'Egil'.slice(0, at)}${letter}${'Egil'.slice(at)}`)).toContain('nobody sees')
      }),
    )
  })
})
