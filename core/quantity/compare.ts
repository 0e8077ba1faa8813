import jstat from 'jstat'
import { mean, sampleVariance } from 'simple-statistics'

/** Two sets of repeats of the same job, held against each other. */
export type Comparison = {
  means: readonly [number, number]
  /** The second less the first, with its interval of 95 % (Welch 1947). */
  difference: number
  low: number
  high: number
  /** How likely ranks so far apart are by chance alone (Wilcoxon 1945, Mann and Whitney 1947; exact, ties included). */
  byRank: number
  /** The least that so few repeats could come to by rank: 0.1 for three each way. */
  leastByRank: number
  /** The smallest difference that so many repeats, scattering like these, show four times in five. */
  couldShow: number
}

/** Repeats of a side at least: two tell how far they scatter. */
export const FEWEST_REPEATS = 2
/** Repeats of a side at most: nobody does a real job more often. */
export const MOST_REPEATS = 60

/** A difference that is there is to be shown so often. */
const POWER = 0.8

/** Compares two sets of repeats. Null where a side has fewer than two. */
export function compareRepeats(one: readonly number[], other: readonly number[]): Comparison | null {
  if (one.length < FEWEST_REPEATS || other.length < FEWEST_REPEATS) return null
  const [first, second] = [mean([...one]), mean([...other])]
  const parts = [sampleVariance([...one]) / one.length, sampleVariance([...other]) / other.length] as const
  const error = Math.sqrt(parts[0] + parts[1])
  const freedom = welchFreedom(parts, [one.length, other.length])
  const half = error === 0 ? 0 : jstat.studentt.inv(0.975, freedom) * error
  const difference = second - first
  return {
    means: [first, second],
    difference,
    low: difference - half,
    high: difference + half,
    byRank: rankChance(one, other),
    leastByRank: 2 / waysToDeal(one.length, other.length),
    couldShow: error === 0 ? 0 : (jstat.studentt.inv(0.975, freedom) + jstat.studentt.inv(POWER, freedom)) * error,
  }
}

/** In how many ways so many readings can be dealt to two sides. */
function waysToDeal(one: number, other: number): number {
  let ways = 1
  for (let at = 1; at <= one; at += 1) ways = (ways * (other + at)) / at
  return ways
}

/** Welch's and Satterthwaite's degrees of freedom. */
function welchFreedom([one, other]: readonly [number, number], [n, m]: readonly [number, number]): number {
  const down = one ** 2 / (n - 1) + other ** 2 / (m - 1)
  return down === 0 ? n + m - 2 : (one + other) ** 2 / down
}

/** Repeats of each side that would show a difference of so much, where readings scatter by `deviation`. Null: more than anybody does. */
export function repeatsToShow(difference: number, deviation: number): number | null {
  if (difference <= 0) return null
  for (let each = FEWEST_REPEATS; each <= MOST_REPEATS; each += 1) {
    const freedom = 2 * each - 2
    const error = deviation * Math.sqrt(2 / each)
    if ((jstat.studentt.inv(0.975, freedom) + jstat.studentt.inv(POWER, freedom)) * error <= difference) return each
  }
  return null
}

/** The share of all ways to deal the readings to the two sides whose rank sum is as far from the middle as the one that was seen. */
function rankChance(one: readonly number[], other: readonly number[]): number {
  const all = [...one, ...other].sort((a, b) => a - b)
  // middle ranks of ties, doubled so that they are whole
  const rankOf = (value: number): number => all.indexOf(value) + all.lastIndexOf(value) + 2
  const ranks = all.map(rankOf)
  const whole = ranks.reduce((sum, rank) => sum + rank, 0)
  const seen = one.reduce((sum, value) => sum + rankOf(value), 0)
  const middle = (whole * one.length) / all.length
  /** Ways to take so many readings of so much rank. */
  const ways: number[][] = Array.from({ length: one.length + 1 }, () => new Array<number>(whole + 1).fill(0))
  ;(ways[0] as number[])[0] = 1
  for (const rank of ranks)
    for (let taken = one.length; taken > 0; taken -= 1) {
      const [now, before] = [ways[taken] as number[], ways[taken - 1] as number[]]
      for (let sum = whole; sum >= rank; sum -= 1) now[sum] = (now[sum] as number) + (before[sum - rank] as number)
    }
  const sums = ways[one.length] as number[]
  const total = sums.reduce((sum, count) => sum + count, 0)
  const far = sums.reduce(
    (sum, count, at) => sum + (Math.abs(at - middle) >= Math.abs(seen - middle) - 1e-9 ? count : 0),
    0,
  )
  return far / total
}
