import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { readValue } from '../bench/read-value'
import { gather, isDrop, isFrame, nothingGathered, parseInstrumentLine, toWrite } from './instrument-lines'

const gathered = (lines: readonly object[]) => {
  const all = nothingGathered()
  for (const line of lines) {
    const read = parseInstrumentLine(JSON.stringify(line))
    if (read) gather(all, read, 0)
    else all.rubbish += 1
  }
  return all
}

describe('lines of an instrument', () => {
  it('of any text at all never throw, and rubbish is none', () => {
    fc.assert(
      fc.property(fc.string(), (text) => {
        const line = parseInstrumentLine(text)
        expect(line === null || typeof line === 'object').toBe(true)
      }),
    )
    for (const rubbish of ['', '{', '12', 'null', '{"watts":"much"}', '{"watts":-1}', `{"note":"${'x'.repeat(5000)}"}`])
      expect(parseInstrumentLine(rubbish)).toBeNull()
  })
  it('become one figure each: the middle, of a plug the warmest, of volts all points', () => {
    const all = gathered([
      { watts: 90, celsius: 30 },
      { watts: 94, celsius: 41 },
      { watts: 99, celsius: 35, drop: true },
      { volts: 0.08, amps: 0.5 },
      { volts: 0.31, amps: 2 },
      { event: 'went', what: 'usb 2-1' },
      { watts: 'none' },
    ])
    expect(all).toMatchObject({ drops: [0, 0], rubbish: 1, simulated: false })
    const drops = ['1970-01-01T00:00:00.000Z', '1970-01-01T00:00:00.000Z']
    expect(toWrite(all)).toEqual([
      {
        test: 'watts',
        value: '94',
        note: '3 readings: 90 to 99, middle 94',
        spread: { count: 3, least: 90, middle: 94, most: 99, drops },
      },
      {
        test: 'warmth',
        value: '41',
        note: '3 readings: 30 to 41, middle 35',
        spread: { count: 3, least: 30, middle: 35, most: 41, drops },
      },
      { test: 'volts lost', value: '0.5 0.08, 2 0.31', note: '2 readings swept over currents' },
    ])
  })
  it('whatever was measured, what is to be written down can be read', () => {
    const figure = (most: number) => fc.option(fc.double({ min: 0, max: most, noNaN: true }), { nil: undefined })
    const line = fc.record({
      write: figure(1e5),
      read: figure(1e5),
      watts: figure(240),
      celsius: figure(200),
      volts: figure(5),
      amps: figure(5),
    })
    fc.assert(
      fc.property(fc.array(line, { maxLength: 30 }), (lines) => {
        for (const { test, value, note } of toWrite(gathered(lines))) {
          expect(note.length).toBeLessThanOrEqual(500)
          expect(value.length).toBeLessThanOrEqual(4000)
          const asked = test === 'volts lost' ? { kind: test, amps: 3 } : { kind: test }
          const read = readValue(asked as Parameters<typeof readValue>[0], value)
          // a copy of nothing is no copy, and volts past 50 are none
          if (!read.ok) expect(['write', 'read', 'volts lost']).toContain(test)
        }
      }),
    )
  })
  it('of a flood are let go one in two, and their middle stays', () => {
    const all = nothingGathered()
    for (let at = 0; at < 100_000; at += 1) gather(all, { watts: at % 101 }, at)
    expect(all.held.watts.points.length).toBeLessThanOrEqual(20_000)
    expect(Number(toWrite(all)[0]?.value)).toBeGreaterThan(40)
    expect(Number(toWrite(all)[0]?.value)).toBeLessThan(60)
  })
  it('of a battery and over hours become a line, each at its instant', () => {
    const all = nothingGathered()
    for (let hour = 0; hour < 5; hour += 1)
      gather(all, { percent: 90 - 3 * hour, watts: 20 + hour, mode: 'gen2x1' }, hour * 3_600_000)
    expect(toWrite(all)).toMatchObject([
      { test: 'watts', spread: { slope: 1 } },
      { test: 'battery', value: '0 90, 1 87, 2 84, 3 81, 4 78' },
      { test: 'link', value: 'gen2x1' },
    ])
    // a link that came up in two modes kept none
    gather(all, { mode: 'usb2' }, 5 * 3_600_000)
    expect(toWrite(all).map(({ test }) => test)).not.toContain('link')
  })
  it('are read out of server-sent events, whose frame is nothing', () => {
    expect(parseInstrumentLine('data: {"watts":20}')).toEqual({ watts: 20 })
    expect(['', ' ', ': still here', 'event: reading', 'id: 7', 'retry: 3000'].every(isFrame)).toBe(true)
    expect(['{"watts":20}', 'data: {"watts":20}', 'nonsense'].some(isFrame)).toBe(false)
  })
  it('tell of a drop by themselves or as a probe does', () => {
    expect(isDrop({ drop: true })).toBe(true)
    expect(isDrop({ event: 'went' })).toBe(true)
    expect(isDrop({ event: 'came' })).toBe(false)
  })
})
