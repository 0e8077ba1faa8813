import { describe, expect, it } from 'vitest'
import { networkOf } from './network'

describe('what is counted as one sender', () => {
  it.each([
    ['192.0.2.7', '192.0.2.7'],
    ['::ffff:192.0.2.7', '192.0.2.7'],
    ['2001:db8:1:2:3:4:5:6', '2001:db8:1:2:0:0:0:0/64'],
    ['2001:db8:1:2:ffff::1', '2001:db8:1:2:0:0:0:0/64'],
    ['2001:db8:1:3::1', '2001:db8:1:3:0:0:0:0/64'],
    ['::1', '0:0:0:0:0:0:0:0/64'],
    ['nonsense', 'nonsense'],
    ['', ''],
  ])('%s counts as %s', (address, network) => {
    expect(networkOf(address)).toBe(network)
  })
})
