import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { cases } from '../../tests/support/laws'
import { lengthOfLeg, lengthOfLegs } from '../quantity/along'
import { LONGEST_LENGTH } from '../quantity/length'
import { pathwaySchema } from '../vocabulary/floor'
import { conduitFill, crossSection, plugPasses, sectionFill, tightestBend } from './conduit'
import { leadFor, legsExample, parseLegs, routeFor } from './legs'
import { networkOf, shortestWay } from './network'

describe('legs in one line', () => {
  const legs = (text: string, unit: 'm' | 'ft' = 'm') => {
    const read = parseLegs(text, unit)
    if (!read.ok) throw new Error(read.problem)
    return read.value
  }
  it('are read as people say them, in either unit, and add up', () => {
    expect(legs(legsExample)).toEqual([
      { by: 'down', length: 0.7 },
      { by: 'tray', length: 6.4 },
      { by: 'up', length: 2.1 },
    ])
    expect(lengthOfLegs(legs(legsExample))).toBe(9.2)
    expect(legs('down 2 ft 6 in; raised floor 14', 'ft').map(lengthOfLeg)).toEqual([0.762, 4.2672])
    expect(lengthOfLegs(legs('down 0.7, along 3, up 2.4, diagonal 3 x 4'))).toBe(11.1)
    expect(legs('0,7, tray 6,4').map(lengthOfLeg)).toEqual([0.7, 6.4])
    expect(legs('4.2')).toEqual([{ by: 'along', length: 4.2 }])
  })
  it('that make no sense are told which', () => {
    expect(parseLegs('down, tray 6')).toMatchObject({ ok: false, problem: expect.stringContaining('"down"') })
    expect(parseLegs('')).toMatchObject({ ok: false })
    expect(parseLegs(Array(50).fill('up 1').join(', '))).toMatchObject({ ok: false })
    expect(parseLegs(`tray ${LONGEST_LENGTH}, up 0.1`)).toMatchObject({ ok: false })
  })
  it('never fail on what people type, and are never longer than a route may be', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 60 }), (text) => {
        const read = parseLegs(text)
        if (read.ok) expect(lengthOfLegs(read.value)).toBeLessThanOrEqual(1000)
        else expect(read.problem).not.toBe('')
      }),
      { numRuns: cases(400) },
    )
  })
  it('ask for a lead with the slack and the loops of the site', () => {
    expect(leadFor(10, { slack: 0.1, loop: 0.5 })).toBeCloseTo(12, 9)
    expect(routeFor(12, { slack: 0.1, loop: 0.5 })).toBeCloseTo(10, 9)
    // a lead that the loops take up reaches nowhere
    expect(routeFor(0.9, { slack: 0.1, loop: 0.5 })).toBe(0)
  })
})

describe('the way over pathways', () => {
  const floors = [
    { id: 'g', name: 'Ground', level: 0 },
    { id: 'u', name: 'Upper', level: 3.2 },
  ]
  const at = (floor: string, x: number, y: number, height: number) => ({ floor, x, y, height })
  const tray = pathwaySchema.parse({
    id: 'tray',
    name: 'Tray',
    kind: 'tray',
    points: [at('g', 0, 0, 2.5), at('g', 6, 0, 2.5), at('g', 6, 4, 2.5)],
  })
  const riser = pathwaySchema.parse({
    id: 'riser',
    name: 'Riser',
    kind: 'riser',
    points: [at('g', 6, 4, 2.5), at('u', 6, 4, 0.1)],
    through: ['riser'],
  })
  it('goes up from the desk, along the tray and down again', () => {
    const way = shortestWay(networkOf(floors, [tray, riser]), at('g', 0, 0, 0.7), at('g', 6, 4, 1))
    expect(way).toEqual({
      legs: [
        { by: 'up', length: 1.8 },
        { by: 'tray', length: 10, pathway: 'tray' },
        { by: 'down', length: 1.5 },
      ],
      length: 13.3,
    })
  })
  it('climbs a riser by the difference of the floors', () => {
    const way = shortestWay(networkOf(floors, [tray, riser]), at('g', 0, 0, 2.5), at('u', 6, 4, 0.8))
    expect(way?.legs).toEqual([
      { by: 'tray', length: 10, pathway: 'tray' },
      { by: 'riser', length: 0.8, pathway: 'riser' },
      { by: 'up', length: 0.7 },
    ])
  })
  it('does not take what is closed, and is none where nothing leads there', () => {
    const open = networkOf(floors, [tray, riser])
    expect(
      shortestWay(networkOf(floors, [{ ...tray, closed: true }, riser]), at('g', 0, 0, 1), at('g', 6, 4, 1)),
    ).toBeNull()
    expect(shortestWay(open, at('g', 1, 0, 1), at('g', 6, 4, 1))).toBeNull()
  })
  it('in a ring it goes the shorter way round', () => {
    const back = pathwaySchema.parse({
      id: 'back',
      name: 'Back',
      kind: 'open floor',
      points: [at('g', 6, 4, 2.5), at('g', 0, 0, 2.5)],
    })
    const way = shortestWay(networkOf(floors, [tray, back]), at('g', 0, 0, 2.5), at('g', 6, 4, 2.5))
    expect(way?.legs).toEqual([{ by: 'open floor', length: 7.2111, pathway: 'back' }])
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
  it('and trays take the cross-sections of what lies in them', () => {
    expect(crossSection([5, 5])).toBeCloseTo(39.27, 2)
    // exactly what is free is allowed, however it was added up; a hair more is not
    const free = crossSection([4, 5, 6.5])
    expect(sectionFill(free, [6.5, 4, 5]).allowed).toBe(true)
    expect(sectionFill(free * 0.9999, [6.5, 4, 5]).allowed).toBe(false)
  })
})
