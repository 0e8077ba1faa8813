import { describe, expect, it } from 'vitest'
import { proxies } from './reach'

describe('the proxy in front', () => {
  it.each([
    [undefined, ['loopback']],
    [' ', ['loopback']],
    ['192.0.2.7', ['192.0.2.7']],
    ['192.0.2.7, 2001:db8::/32', ['192.0.2.7', '2001:db8::/32']],
  ])('of %s is %j', (text, told) => {
    expect(proxies(text)).toEqual(told)
  })
  it.each(['anybody', '192.0.2.7/', '*', '192.0.2.7,'])('is an address, and not %s', (text) => {
    expect(() => proxies(text)).toThrow(/address of the proxy/)
  })
})
