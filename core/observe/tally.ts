import { longestOf, type Series, secondsOf, sinceLast } from './ledger'

/** What one series says of what is asked: it held, it failed as it came up, or after it had been up for a while. */
export type Says = 'held' | 'at once' | 'after a while'

/** What all series together say of one question, counted. */
export type Tally<S extends Series<object> = Series<object>> = {
  held: number
  /** It failed as it came up: lower, not at all, black at once, with less than was asked. */
  atOnce: number
  /** It failed after it had been up, and the longest that it had been watched for then. */
  afterWhile: number
  longestUp: number
  secondsHeld: number
  secondsFailed: number
  longestHeld: number
  /** Tries that held since it last failed as it came up. */
  triesSince: number
  /** Seconds that it held since it last failed after a while, in sum and at the longest. */
  secondsSince: number
  longestSince: number
  /** The series of the last hold, and of the last failure. */
  lastHeld: S | null
  lastFailed: S | null
}

export const NOTHING_COUNTED: Tally<never> = {
  held: 0,
  atOnce: 0,
  afterWhile: 0,
  longestUp: 0,
  secondsHeld: 0,
  secondsFailed: 0,
  longestHeld: 0,
  triesSince: 0,
  secondsSince: 0,
  longestSince: 0,
  lastHeld: null,
  lastFailed: null,
}

const isLater = (one: Series<object>, other: Series<object> | null): boolean => other === null || one.at > other.at

/** Counts what the series of one ledger say of a question; those that say nothing of it are left out. Asked for each lead that is judged anywhere. */
export function tallyOf<S extends Series<object>>(all: readonly S[], says: (series: S) => Says | null): Tally<S> {
  const tally: Tally<S> = { ...NOTHING_COUNTED }
  const held: S[] = []
  let lastAtOnce: S | null = null
  let lastAfter: S | null = null
  for (const each of all) {
    const said = says(each)
    if (said === null) continue
    if (said === 'held') {
      held.push(each)
      tally.held += each.times
      tally.secondsHeld += secondsOf(each)
      tally.longestHeld = Math.max(tally.longestHeld, longestOf(each))
      if (isLater(each, tally.lastHeld)) tally.lastHeld = each
      continue
    }
    tally.secondsFailed += secondsOf(each)
    if (isLater(each, tally.lastFailed)) tally.lastFailed = each
    if (said === 'at once') {
      tally.atOnce += each.times
      if (isLater(each, lastAtOnce)) lastAtOnce = each
    } else {
      tally.afterWhile += each.times
      tally.longestUp = Math.max(tally.longestUp, longestOf(each))
      if (isLater(each, lastAfter)) lastAfter = each
    }
  }
  // how much of it came since is known once the last failures are
  for (const each of held) {
    tally.triesSince += lastAtOnce ? sinceLast(each, lastAtOnce)[0] : each.times
    const [, seconds, longest] = lastAfter
      ? sinceLast(each, lastAfter)
      : ([each.times, secondsOf(each), longestOf(each)] as const)
    tally.secondsSince += seconds
    tally.longestSince = Math.max(tally.longestSince, longest)
  }
  return tally
}
