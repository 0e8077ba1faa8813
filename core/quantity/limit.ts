/** Relative slack of a comparison: far below any figure people read, far above what adding and multiplying loses. */
const HAIR = 1e-9

/**
 * Whether a figure reaches a limit. Exactly at it counts, however the figure was worked out: 3 m with a tenth of slack is met by 3.3 m, though
 * 3 x 1.1 is a hair more in binary. Beyond a hair it does not, and no rounding for display ever decides.
 */
export const atLeast = (have: number, limit: number): boolean => have >= limit - HAIR * Math.max(1, Math.abs(limit))

/** Whether a figure stays within a limit; exactly at it counts. */
export const atMost = (have: number, limit: number): boolean => atLeast(limit, have)
