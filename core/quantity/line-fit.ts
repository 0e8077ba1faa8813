import jstat from 'jstat'
import { linearRegression } from 'simple-statistics'

/** A straight line through points, with the interval of 95 % in which its slope lies. */
export type LineFit = { slope: number; intercept: number; low: number; high: number; count: number }

/**
 * The line of least squares through points, such as volts lost over amperes or battery percent over hours. Null where there are not two different places
 * along the line. Two points leave the slope open: its interval then has no ends.
 */
export function fitLine(points: readonly (readonly [x: number, y: number])[]): LineFit | null {
  const count = points.length
  if (new Set(points.map(([x]) => x)).size < 2) return null
  const { m: slope, b: intercept } = linearRegression(points.map(([x, y]) => [x, y]))
  if (count === 2) return { slope, intercept, low: Number.NEGATIVE_INFINITY, high: Number.POSITIVE_INFINITY, count }
  const middle = points.reduce((sum, [x]) => sum + x, 0) / count
  const spread = points.reduce((sum, [x]) => sum + (x - middle) ** 2, 0)
  const off = points.reduce((sum, [x, y]) => sum + (y - intercept - slope * x) ** 2, 0)
  const half = jstat.studentt.inv(0.975, count - 2) * Math.sqrt(off / (count - 2) / spread)
  return { slope, intercept, low: slope - half, high: slope + half, count }
}
