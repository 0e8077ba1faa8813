import type { Place } from '../vocabulary/place'

type Mains = Place['mains']

/** What can be said of the mains at a place, and the words for it. */
export const MAINS_WORDS = { yes: true, no: false, 'not known': 'not known' } as const satisfies Record<string, Mains>
export type MainsWord = keyof typeof MAINS_WORDS

export const mainsText = (mains: Mains): MainsWord => (mains === 'not known' ? mains : mains ? 'yes' : 'no')

/** Reads what a table or a form says of the mains at a place; null where it is none of the words. */
export function readMains(text: string): Mains | null {
  if (/^(yes|y|true|1|x)$/i.test(text)) return true
  if (/^(no|n|false|0)$/i.test(text)) return false
  return /^(not known|unknown|\?)$/i.test(text) ? 'not known' : null
}
