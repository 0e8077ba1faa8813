import { decimal, type Parsed, parsed, plainText, unreadable } from './parsed'

export type Watts = number
export type Volts = number
export type Amps = number

/** USB power delivery ends at 48 V x 5 A. */
export const HIGHEST_WATTS: Watts = 240

/** Reads "96 W", "9.2W", "96 watts". Answers watts. */
export function parseWatts(text: string): Parsed<Watts> {
  const found = plainText(text).match(/^(\d+(?:[.,]\d+)?|\.\d+) ?(?:w|watts?)$/i)
  if (!found) return unreadable('Write power in watts, such as 96 W.')
  const watts = Number((found[1] ?? '').replace(',', '.'))
  if (watts <= 0 || watts > HIGHEST_WATTS)
    return unreadable(`Power over a cable lies above 0 and at most ${HIGHEST_WATTS} W.`)
  return parsed(watts)
}

export const formatWatts = (watts: Watts): string => (watts === 0 ? 'no power' : `${decimal(watts, 1)} W`)
