import type { Metres } from '../quantity/length'
import { published, type Source } from '../standards/source'

/** Sound pressure level in dB. */
export type Decibels = number

export const soundSource: Source = published('inverse square law; ISO 9613-2, divergence term')

/** Levels of several boxes at one chair, added in energy: two equal ones are 3 dB louder than one. */
export function addLevels(levels: readonly Decibels[]): Decibels {
  return 10 * Math.log10(levels.reduce((sum, level) => sum + 10 ** (level / 10), 0))
}

/** The level at `distance` of a box measured at `measuredAt`, in the open; walls make it louder and doors quieter. */
export const levelAt = (level: Decibels, measuredAt: Metres, distance: Metres): Decibels =>
  level - 20 * Math.log10(distance / measuredAt)

/** How far a box must go from the chair until it is at `wanted`; where it already is, where it stands. */
export const distanceFor = (level: Decibels, measuredAt: Metres, wanted: Decibels): Metres =>
  measuredAt * Math.max(1, 10 ** ((level - wanted) / 20))
