import { describe, expect, it } from 'vitest'
import { mayAsk, mayChange } from './same-site'

const asking = (more: object) => ({
  method: 'POST',
  host: '127.0.0.1:4310',
  origin: undefined,
  fetchSite: undefined,
  ...more,
})

describe('who may change something', () => {
  it.each([
    ['a page of Hallway', { fetchSite: 'same-origin' }, true],
    ['another site', { fetchSite: 'cross-site' }, false],
    ['another port of this machine', { fetchSite: 'same-site' }, false],
    ['an older browser on our page', { origin: 'http://127.0.0.1:4310' }, true],
    ['an older browser elsewhere', { origin: 'http://127.0.0.1:9999' }, false],
    ['a page without an origin', { origin: 'null' }, false],
    ['a script on this machine', {}, true],
    ['anybody who only reads', { method: 'GET', fetchSite: 'cross-site' }, true],
  ])('%s: %o', (_who, more, allowed) => {
    expect(mayChange(asking(more))).toBe(allowed)
  })
})

describe('which names Hallway answers to', () => {
  const onLoopback = new Set<string>()
  it('on loopback, only names of loopback', () => {
    expect(['localhost:4310', '127.0.0.1:4310', '[::1]:4310'].map((host) => mayAsk(host, onLoopback))).toEqual([
      true,
      true,
      true,
    ])
    expect(mayAsk('evil.example:4310', onLoopback)).toBe(false)
    expect(mayAsk(undefined, onLoopback)).toBe(false)
    expect(mayAsk('not a host', onLoopback)).toBe(false)
  })
  it('and those it was told', () => {
    expect(mayAsk('hallway.example', new Set(['hallway.example']))).toBe(true)
    expect(mayAsk('anything.example', null)).toBe(true)
  })
})
