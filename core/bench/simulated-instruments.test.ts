import { describe, expect, it } from 'vitest'
import { gather, isDrop, nothingGathered, parseInstrumentLine, toWrite } from '../series/instrument-lines'
import { SIMULATED_INSTRUMENTS, type SimulatedInstrument, simulatedLine } from './simulated-instruments'
import { SIMULATED_LEADS, type SimulatedLead } from './simulated-lead'

const watch = (instrument: SimulatedInstrument, lead: SimulatedLead, seconds = 120) =>
  Array.from({ length: seconds }, (_, at) => simulatedLine(instrument, at, 'seed', lead))

describe('simulated instruments', () => {
  it.each(SIMULATED_INSTRUMENTS)(
    '%s prints lines of the open format, marked as simulated, the same again',
    (instrument) => {
      for (const lead of SIMULATED_LEADS) {
        const lines = watch(instrument, lead)
        expect(watch(instrument, lead)).toEqual(lines)
        for (const line of lines) {
          expect(parseInstrumentLine(JSON.stringify(line))).toEqual(line)
          expect(line.simulated).toBe(true)
        }
      }
    },
  )
  it.each(['link reporter', 'display lister', 'headset link', 'audio loop', 'bench'] as const)(
    '%s sees a lead drop between 45 and 90 s, and no sound one',
    (instrument) => {
      expect(watch(instrument, 'as marked').some(isDrop)).toBe(false)
      const at = watch(instrument, 'drops').findIndex(isDrop)
      expect(at).toBeGreaterThanOrEqual(45)
      expect(at).toBeLessThanOrEqual(90)
    },
  )
  it('show what each lead does wrong', () => {
    const of = (instrument: SimulatedInstrument, lead: SimulatedLead) => {
      const all = nothingGathered()
      for (const [at, line] of watch(instrument, lead, 600).entries()) gather(all, line, at * 1000)
      return Object.fromEntries(toWrite(all).map((each) => [each.test, each]))
    }
    expect(of('thermometer', 'heats').warmth?.spread?.most).toBeGreaterThan(60)
    expect(of('thermometer', 'as marked').warmth?.spread?.most).toBeLessThan(40)
    const fell = of('disk test', 'falls back').write?.spread
    expect(fell?.most).toBeGreaterThan(2000)
    expect(fell?.least).toBeLessThan(60)
    // beside a neighbour it came up in another mode: it kept none
    expect(of('link reporter', 'falls back').link).toBeUndefined()
    expect(of('link reporter', 'as marked').link?.value).toBe('usb4-40')
    const lie = of('disk test', 'lies').write?.spread
    expect(lie?.least).toBe(lie?.most)
    expect(of('power meter', 'as marked')['volts lost']).toBeDefined()
    expect(of('headset link', 'as marked')['headset link']).toBeDefined()
    expect(of('audio loop', 'as marked')['added delay']).toBeDefined()
  })
})
