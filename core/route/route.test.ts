import { describe, expect, it } from 'vitest'
import { conduitFill, plugPasses, tightestBend } from './conduit'
import { routeLength } from './legs'
import { type Pathway, shortestWay } from './pathways'

describe('the length of a route', () => {
  it('is every leg of the real way, with slack at both ends and loops', () => {
    const legs = [
      { kind: 'down', length: 0.7 },
      { kind: 'along', length: 3 },
      { kind: 'up', length: 2.4 },
      { kind: 'diagonal', across: 3, along: 4 },
    ] as const
    expect(routeLength(legs)).toBeCloseTo(11.1, 9)
    expect(routeLength(legs, { slackEachEnd: 0.3, serviceLoops: { count: 2, length: 0.5 } })).toBeCloseTo(12.7, 9)
  })
})

describe('the way through a site', () => {
  const pathways: Pathway[] = [
    { id: 'p1', from: 'rack', to: 'tray', length: 2 },
    { id: 'p2', from: 'tray', to: 'hall', length: 10, conditions: ['raised floor'] },
    { id: 'p3', from: 'hall', to: 'rack', length: 9, conditions: ['plenum'] },
    { id: 'p4', from: 'hall', to: 'desk', length: 1.5 },
  ]
  it('is the shortest, and tells what to ask about on it', () => {
    expect(shortestWay(pathways, 'rack', 'desk')).toEqual({
      pathways: ['p3', 'p4'],
      length: 10.5,
      conditions: ['plenum'],
    })
    expect(shortestWay(pathways, 'desk', 'rack')?.length).toBe(10.5)
  })
  it('goes round what is to be avoided, and is none where that leaves none', () => {
    expect(shortestWay(pathways, 'rack', 'desk', ['plenum'])).toEqual({
      pathways: ['p1', 'p2', 'p4'],
      length: 13.5,
      conditions: ['raised floor'],
    })
    expect(shortestWay(pathways, 'rack', 'desk', ['plenum', 'raised floor'])).toBeNull()
  })
  it('is nothing at all from a place to itself', () => {
    expect(shortestWay(pathways, 'rack', 'rack')).toEqual({ pathways: [], length: 0, conditions: [] })
  })
})

describe('conduits', () => {
  it('take 53 % for one cable, 31 % for two, 40 % for more (NEC chapter 9 table 1)', () => {
    expect(conduitFill(0.02, [0.0145]).allowed).toBe(true)
    expect(conduitFill(0.02, [0.0147]).allowed).toBe(false)
    expect(conduitFill(0.02, [0.0078, 0.0078]).allowed).toBe(true)
    expect(conduitFill(0.02, [0.0079, 0.0079]).allowed).toBe(false)
    expect(conduitFill(0.02, [0.005, 0.005, 0.005]).limit).toBe(0.4)
  })
  it('pass a moulded type-C plug from about 15 mm on (common practice)', () => {
    expect(plugPasses(0.014)).toBe(false)
    expect(plugPasses(0.0145)).toBe(true)
  })
  it('a 5 mm lead bends no tighter than 20 mm (common practice)', () => {
    expect(tightestBend(0.005)).toBeCloseTo(0.02, 9)
  })
})
