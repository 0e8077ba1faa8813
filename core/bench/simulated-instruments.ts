import { MEGABYTE_PER_SECOND } from '../quantity/rate'
import type { InstrumentLine } from '../series/instrument-lines'
import { type SimulatedLead, type SoundLead, sampleAt } from './simulated-lead'

/** Instruments that ship with Hallway, to try a run without a bench; `bench` is all of them in one. */
export const SIMULATED_INSTRUMENTS = [
  'bench',
  'power meter',
  'disk test',
  'link reporter',
  'display lister',
  'thermometer',
  'headset link',
  'audio loop',
] as const
export type SimulatedInstrument = (typeof SIMULATED_INSTRUMENTS)[number]

/** What a sound lead would show, in figures made up for the trial. */
const SOUND: SoundLead = {
  mode: 'usb4-40',
  write: 2800 * MEGABYTE_PER_SECOND,
  read: 3000 * MEGABYTE_PER_SECOND,
  watts: 94,
  voltsLost: 0.31,
  picture: true,
}
const HEADSET_MEGABITS = 2400
const DELAY_MS = 0.6
/** Currents that the power meter goes through, a second each. */
const SWEPT_AMPS = [0.5, 1, 1.5, 2, 2.5, 3]
const SOUND_AMPS = 3
/** A headset that is fed gains so much an hour; one whose lead gives less drains. */
const GAINS_PERCENT = 4
const DRAINS_PERCENT = -9

const tenth = (value: number): number => Math.round(value * 10) / 10

/** The line that an instrument prints at a second, of a lead that behaves or does not; the same seed prints the same. Marked as simulated for good. */
export function simulatedLine(
  instrument: SimulatedInstrument,
  second: number,
  seed: string,
  lead: SimulatedLead,
): InstrumentLine {
  const sample = sampleAt(second, seed, lead, SOUND)
  const before = second > 0 ? sampleAt(second - 1, seed, lead, SOUND) : sample
  const dropped = before.mode !== null && sample.mode === null
  const up = sample.mode !== null
  const megabytes = (rate: number | null): number => Math.round((rate ?? 0) / MEGABYTE_PER_SECOND)
  const amps = SWEPT_AMPS[second % SWEPT_AMPS.length] ?? SOUND_AMPS
  const volts = Math.round((((sample.voltsLost ?? 0) * amps) / SOUND_AMPS) * 1e4) / 1e4
  // of a thing that scatters around what a sound lead shows, as its copies do
  const wobble = lead === 'lies' ? 1 : (sample.watts ?? 0) / (SOUND.watts ?? 1)
  const percentAnHour =
    lead === 'charge-only' || lead === 'as marked' || lead === 'lies' ? GAINS_PERCENT : DRAINS_PERCENT
  const reads: Record<Exclude<SimulatedInstrument, 'bench'>, Omit<InstrumentLine, 'simulated'>> = {
    'power meter': { watts: sample.watts ?? 0, volts, amps },
    'disk test': { write: megabytes(sample.write), read: megabytes(sample.read) },
    'link reporter': { ...(sample.mode ? { mode: sample.mode } : {}), ...(dropped ? { drop: true } : {}) },
    'display lister': { picture: up, ...(dropped ? { drop: true } : {}) },
    thermometer: { celsius: sample.celsius },
    'headset link': {
      headset: up ? tenth(HEADSET_MEGABITS * wobble) : 0,
      percent: tenth(Math.max(0, Math.min(100, 60 + (percentAnHour * second) / 3600))),
      ...(dropped ? { drop: true } : {}),
    },
    'audio loop': up ? { delay: Math.round(DELAY_MS * wobble * 1000) / 1000 } : { drop: true },
  }
  const { 'disk test': disk, thermometer } = reads
  const said =
    instrument === 'bench'
      ? { ...disk, watts: sample.watts ?? 0, ...thermometer, ...(dropped ? { drop: true as const } : {}) }
      : reads[instrument]
  return { ...said, simulated: true }
}
