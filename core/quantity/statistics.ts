import { mean, median, sampleStandardDeviation } from 'simple-statistics'

/** A share of tries that succeeded, with the range that so few tries leave open. */
export type SuccessRate = { passed: number; tried: number; share: number; low: number; high: number }

/** The standard normal quantile for 95 % between both sides. */
const Z_95 = 1.959963984540054

/**
 * How often something worked, with Wilson's score interval of 95 % (Wilson 1927): unlike the plain share it stays honest for few tries and
 * near none or all. Null where nothing was tried.
 */
export function successRate(passed: number, tried: number): SuccessRate | null {
  if (tried === 0) return null
  const share = passed / tried
  const square = Z_95 * Z_95
  const middle = (share + square / (2 * tried)) / (1 + square / tried)
  const half = (Z_95 / (1 + square / tried)) * Math.sqrt((share * (1 - share)) / tried + square / (4 * tried * tried))
  return {
    passed,
    tried,
    share,
    low: Math.min(share, Math.max(0, middle - half)),
    high: Math.max(share, Math.min(1, middle + half)),
  }
}

/** Repeated readings of one thing: the middle, and how far they scatter. */
export type Spread = { count: number; median: number; mean: number; deviation: number; least: number; most: number }

/** Median, mean and sample standard deviation of readings; null where there are none. One reading scatters by nothing that is known: 0. */
export function spreadOf(readings: readonly number[]): Spread | null {
  if (readings.length === 0) return null
  return {
    count: readings.length,
    median: median([...readings]),
    mean: mean([...readings]),
    deviation: readings.length === 1 ? 0 : sampleStandardDeviation([...readings]),
    least: Math.min(...readings),
    most: Math.max(...readings),
  }
}
