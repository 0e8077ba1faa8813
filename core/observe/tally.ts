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

const latest = <S extends Series<object>>(all: readonly S[]): S | null =>
  all.reduce<S | null>((last, each) => (last === null || each.at > last.at ? each : last), null)

const sumOf = <S>(all: readonly S[], figure: (each: S) => number): number =>
  all.reduce((sum, each) => sum + figure(each), 0)
const mostOf = <S>(all: readonly S[], figure: (each: S) => number): number =>
  all.reduce((most, each) => Math.max(most, figure(each)), 0)

/** Counts what the series of one ledger say of a question; those that say nothing of it are left out. */
export function tallyOf<S extends Series<object>>(all: readonly S[], says: (series: S) => Says | null): Tally<S> {
  const held: S[] = []
  const atOnce: S[] = []
  const afterWhile: S[] = []
  for (const each of all) {
    const said = says(each)
    if (said !== null) (said === 'held' ? held : said === 'at once' ? atOnce : afterWhile).push(each)
  }
  const [lastAtOnce, lastAfter] = [latest(atOnce), latest(afterWhile)]
  const since = held.map((each) => ({
    tries: lastAtOnce ? sinceLast(each, lastAtOnce)[0] : each.times,
    watched: lastAfter ? sinceLast(each, lastAfter) : ([each.times, secondsOf(each), longestOf(each)] as const),
  }))
  const times = ({ times: count }: S): number => count
  return {
    held: sumOf(held, times),
    atOnce: sumOf(atOnce, times),
    afterWhile: sumOf(afterWhile, times),
    longestUp: mostOf(afterWhile, longestOf),
    secondsHeld: sumOf(held, secondsOf),
    secondsFailed: sumOf([...atOnce, ...afterWhile], secondsOf),
    longestHeld: mostOf(held, longestOf),
    triesSince: sumOf(since, ({ tries }) => tries),
    secondsSince: sumOf(since, ({ watched: [, sum] }) => sum),
    longestSince: mostOf(since, ({ watched: [, , most] }) => most),
    lastHeld: latest(held),
    lastFailed: latest([...atOnce, ...afterWhile]),
  }
}
