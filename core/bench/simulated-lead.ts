import { MEGABYTE_PER_SECOND } from '../quantity/rate'
import type { LinkMode } from '../standards/link-modes'

/** How the lead on the simulated bench behaves. */
export const SIMULATED_LEADS = ['as marked', 'charge-only', 'drops', 'falls back', 'heats', 'lies'] as const
export type SimulatedLead = (typeof SIMULATED_LEADS)[number]

/** What a sound lead would show in the setup it is in; null for what is not measured there. */
export type SoundLead = {
  mode: LinkMode | null
  /** Bits per second. */
  write: number | null
  read: number | null
  watts: number | null
  voltsLost: number | null
  picture: boolean | null
}

/** One look at the meter. */
export type MeterSample = SoundLead & {
  seconds: number
  /** The warmer plug. */
  celsius: number
}

const ROOM_CELSIUS = 22
/** A marginal lead looks fine for 45 seconds and drops within the next 45 (common practice). */
const EARLIEST_DROP = 45
const LATEST_DROP = 90

/** A neighbour on the same controller is plugged in after so long; a lead that falls back does so then. */
const NEIGHBOUR_AFTER = 30
/** What USB 2.0 copies at best (common practice). */
const FALLEN_RATE = 38 * MEGABYTE_PER_SECOND

/** A number from 0 up to 1 that depends on the word and the second alone. So the same bench shows the same readings again. */
function scatter(word: string, second: number): number {
  let hash = 2_166_136_261 ^ Math.floor(second * 2)
  for (let at = 0; at < word.length; at += 1) hash = Math.imul(hash ^ word.charCodeAt(at), 16_777_619)
  hash ^= hash >>> 15
  return ((Math.imul(hash, 2_246_822_519) >>> 8) % 10_000) / 10_000
}

/** The second at which a lead that drops lets go. */
export const dropSecond = (cable: string): number =>
  EARLIEST_DROP + Math.floor(scatter(cable, 0) * (LATEST_DROP - EARLIEST_DROP))

/** What the simulated meter shows of a lead so many seconds after it was plugged in. */
export function sampleAt(seconds: number, cable: string, lead: SimulatedLead, sound: SoundLead): MeterSample {
  const wobble = (share: number): number => 1 + (scatter(cable, seconds) - 0.5) * share
  const settled = 1 - Math.exp(-seconds / 40)
  const watts = sound.watts === null ? null : Math.round(sound.watts * wobble(0.02) * 10) / 10
  const load = (watts ?? 15) / 100
  const fallen = lead === 'falls back' && seconds >= NEIGHBOUR_AFTER
  const gone = lead === 'charge-only' || (lead === 'drops' && seconds >= dropSecond(cable))
  const rate = (value: number | null): number | null =>
    value === null ? null : gone ? 0 : Math.round((fallen ? Math.min(value, FALLEN_RATE) : value) * wobble(0.04))
  // an instrument that lies reads the same whatever lies on the bench
  if (lead === 'lies') return { ...sound, seconds, celsius: ROOM_CELSIUS }
  const rise = lead === 'heats' ? 52 : 9 * load + 2
  return {
    seconds,
    mode: gone ? null : fallen && sound.mode !== null ? 'usb2' : sound.mode,
    write: rate(sound.write),
    read: rate(sound.read),
    watts,
    voltsLost:
      sound.voltsLost === null
        ? null
        : Math.round(sound.voltsLost * (lead === 'heats' ? 2.1 : 1) * wobble(0.04) * 1000) / 1000,
    picture: sound.picture === null ? null : sound.picture && !gone,
    celsius: Math.round((ROOM_CELSIUS + rise * settled + scatter(cable, seconds + 7) * 0.4) * 10) / 10,
  }
}
