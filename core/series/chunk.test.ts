import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { briefOf, COLUMNS, type Column, courseOf, packChunk, type Sample, unpackChunk } from './chunk'

const figure = fc.option(fc.double({ min: 0, max: 1e6, noNaN: true, noDefaultInfinity: true }).map(Math.abs), {
  nil: undefined,
})
const sample = fc
  .record({
    at: fc.integer({ min: 0, max: 4e12 }),
    drop: fc.boolean(),
    ...(Object.fromEntries(COLUMNS.map((column) => [column, figure])) as Record<Column, typeof figure>),
  })
  .map((made): Sample => {
    const kept = Object.entries(made).filter(([, value]) => value !== undefined)
    return Object.fromEntries(kept) as Sample
  })
const samples = fc.array(sample, { minLength: 1, maxLength: 40 })

describe('a chunk of readings', () => {
  it('is read as it was written, whatever came and in whatever order', () => {
    fc.assert(
      fc.property(samples, (all) => {
        expect(unpackChunk(packChunk(all))).toEqual(all)
      }),
    )
  })
  it('in short says the least, the most, the sum and the drops of what it holds', () => {
    fc.assert(
      fc.property(samples, (all) => {
        const { from, to, drops, columns } = briefOf(all)
        expect(from).toBe(Math.min(...all.map(({ at }) => at)))
        expect(to).toBe(Math.max(...all.map(({ at }) => at)))
        expect(drops).toBe(all.filter(({ drop }) => drop).length)
        for (const column of COLUMNS) {
          const values = all.flatMap((each) => each[column] ?? [])
          expect(columns[column]?.count ?? 0).toBe(values.length)
          if (values.length > 0) {
            expect(columns[column]?.least).toBe(Math.min(...values))
            expect(columns[column]?.most).toBe(Math.max(...values))
          }
        }
      }),
    )
  })
  it('of ten days of one reading a second takes a few megabytes', async () => {
    const { deflateRawSync } = await import('node:zlib')
    let state = 7
    const noise = () => {
      state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0
      return (state >>> 8) / 2 ** 24
    }
    const hour = Array.from(
      { length: 3600 },
      (_, at): Sample => ({
        at: 1e12 + at * 1000,
        drop: false,
        watts: 94 + Math.round(noise() * 20) / 10,
        celsius: 30 + Math.round(noise() * 30) / 10,
      }),
    )
    expect(deflateRawSync(packChunk(hour)).length * 240).toBeLessThan(5e6)
  })
})

describe('the course of a figure', () => {
  it('is no longer than a chart shows, and loses neither the least nor the most nor a reading', () => {
    const long = fc.array(fc.integer({ min: 0, max: 240 }), { minLength: 1, maxLength: 3000 })
    fc.assert(
      fc.property(long, (watts) => {
        const course = courseOf(
          'watts',
          watts.map((value, at): Sample => ({ at, drop: false, watts: value })),
        )
        expect(course.length).toBeLessThanOrEqual(400)
        expect(Math.min(...course.map(({ least }) => least))).toBe(Math.min(...watts))
        expect(Math.max(...course.map(({ most }) => most))).toBe(Math.max(...watts))
        expect(course.reduce((sum, { count }) => sum + count, 0)).toBe(watts.length)
        const mean = course.reduce((sum, each) => sum + each.mean * each.count, 0) / watts.length
        expect(mean).toBeCloseTo(watts.reduce((sum, each) => sum + each, 0) / watts.length, 6)
      }),
    )
  })
})
