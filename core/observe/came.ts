import type { Series } from './ledger'
import type { Tally } from './tally'

/**
 * What is asked of a look, in seconds: what never held `least` of them has not held at all, from `relied` on it is relied on, and what failed has to hold a
 * `soak` at one go.
 */
export type Asks = { least: number; relied: number; soak: number }

/** So many tries in a row have to hold for each that failed as it came up. Hallway's own judgement: common practice names no figure. */
export const TRIES_TO_CLEAR = 3
/** So many times as long as it was up before it failed it has to hold in sum, for each time. Hallway's own judgement as well. */
export const TIMES_AS_LONG = 20

/** What all that was seen comes to, the worst first. */
export const CAME = ['failed', 'comes and goes', 'begun anew', 'came up', 'held'] as const
export type Came = (typeof CAME)[number]

/** The part of a tally that tells whether what failed is cleared. */
type Failures = Pick<Tally, 'atOnce' | 'triesSince' | 'afterWhile' | 'longestUp' | 'secondsSince' | 'longestSince'>

/** What failed as it came up is cleared by tries, what failed after a while by time, and by the soak that the site asks. */
export const isCleared = (tally: Failures, asks: Pick<Asks, 'soak'>): boolean =>
  isUpCleared(tally) && !drops(tally, asks)

const isUpCleared = ({ atOnce, triesSince }: Failures): boolean => triesSince >= TRIES_TO_CLEAR * atOnce

/** Seconds it has to hold since it last failed after a while. */
export const secondsToClear = ({ afterWhile, longestUp }: Failures): number =>
  TIMES_AS_LONG * afterWhile * Math.max(1, longestUp)

/** It failed after a while, and that is not cleared: it comes up and drops. */
export const drops = (tally: Failures, { soak }: Pick<Asks, 'soak'>): boolean =>
  tally.afterWhile > 0 && (tally.secondsSince < secondsToClear(tally) || tally.longestSince < soak)

export const failures = ({ atOnce, afterWhile }: Pick<Tally, 'atOnce' | 'afterWhile'>): number => atOnce + afterWhile

/**
 * What was seen of one question comes to one outcome, wherever it is asked; null where nothing was seen. `now` is what was seen as things are, `earlier` what
 * was seen before somebody set it right or something else was installed.
 *
 * What failed and never held is failed. What did both comes and goes, until it is cleared. What failed earlier begins anew: three tries and a soak decide.
 */
export function came<S extends Series<object>>(now: Tally<S>, earlier: Tally<S>, asks: Asks): Came | null {
  if (now.held + failures(now) === 0) {
    if (failures(earlier) > 0) return 'begun anew'
    return earlier.held > 0 ? heldFor(earlier, asks) : null
  }
  if (now.held === 0) return 'failed'
  if (!isCleared(now, asks)) return now.longestHeld >= asks.least ? 'comes and goes' : 'failed'
  if (failures(earlier) > 0 && (now.held < TRIES_TO_CLEAR || now.longestHeld < asks.soak)) return 'begun anew'
  return heldFor(now, asks)
}

const heldFor = ({ longestHeld }: Tally, { relied }: Asks): Came => (longestHeld >= relied ? 'held' : 'came up')

/** Held or came up, and nothing speaks against it. */
export const isGood = (outcome: Came | null): boolean => outcome === 'held' || outcome === 'came up'
