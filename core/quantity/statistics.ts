import { mean, median, sampleStandardDeviation } from 'simple-statistics'

/** A share of tries that succeeded, with the range that so few tries leave open. */
export type SuccessRate = { passed: number; tried: number; share: number; low: number; high: number }

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
