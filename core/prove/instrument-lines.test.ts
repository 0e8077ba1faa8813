import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { readValue } from '../bench/read-value'
import { gather, isDrop, nothingGathered, parseInstrumentLine, toWrite } from './instrument-lines'

const gathered = (lines: readonly object[]) => {
  const all = nothingGathered()
  for (const line of lines) {
    const read = parseInstrumentLine(JSON.stringify(line))
    if (read) gather(all, read)
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
    expect(all).toMatchObject({ drops: 2, rubbish: 1, simulated: false })
    expect(toWrite(all)).toEqual([
      { test: 'watts', value: '94', note: '3 readings: 90 to 99, middle 94' },
      { test: 'warmth', value: '41', note: '3 readings: 30 to 41, middle 35' },
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
    for (let at = 0; at < 100_000; at += 1) gather(all, { watts: at % 101 })
    expect(all.held.watts.length).toBeLessThanOrEqual(20_000)
    expect(Number(toWrite(all)[0]?.value)).toBeGreaterThan(40)
    expect(Number(toWrite(all)[0]?.value)).toBeLessThan(60)
  })
  it('tell of a drop by themselves or as a probe does', () => {
    expect(isDrop({ drop: true })).toBe(true)
    expect(isDrop({ event: 'went' })).toBe(true)
    expect(isDrop({ event: 'came' })).toBe(false)
  })
})
