import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { cases } from '../tests/support/laws'
import { within } from './address'

const pieces = fc
  .array(
    fc.constantFrom(
      '/',
      '//',
      '.',
      '..',
      '\\',
      'elsewhere.example',
      '%2e',
      '%2F',
      '\t',
      '\n',
      ' ',
      '?',
      '#',
      '@',
      ':',
      'é',
      'a',
      '\u0000',
    ),
    {
      maxLength: 9,
    },
  )
  .map((each) => each.join(''))

describe('an address to go back to', () => {
  it.each([
    ['/sites/saltmarsh/runs/r-01?done=saved#top', '/sites/saltmarsh/runs/r-01?done=saved#top'],
    ['/', '/'],
    ['/sites/hafen/é', '/sites/hafen/%C3%A9'],
    ['/.//elsewhere.example', '/'],
    ['/..//elsewhere.example', '/'],
    ['//elsewhere.example', '/'],
    ['/\\elsewhere.example', '/'],
    ['/\t/elsewhere.example', '/'],
    ['https://elsewhere.example/', '/'],
    ['javascript:alert(1)', '/'],
    ['', '/'],
    [null, '/'],
  ])('%j comes to %j', (asked, back) => {
    expect(within(asked)).toBe(back)
  })

  it('stays here, and can be sent in a header, whatever is asked', () => {
    fc.assert(
      fc.property(
        fc.oneof(
          pieces,
          pieces.map((text) => `/${text}`),
          fc.string({ unit: 'binary' }),
        ),
        (asked) => {
          const back = within(asked)
          expect(new URL(back, 'https://hallway.example:8443/sites/a').origin).toBe('https://hallway.example:8443')
          expect(back).toMatch(/^\/[\u0021-\u007e]*$/)
          expect(within(back)).toBe(back)
        },
      ),
      { numRuns: cases(2000) },
    )
  })
})
