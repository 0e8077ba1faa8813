/** Milliseconds of one go. */
export function timed(work: () => void): number {
  const start = performance.now()
  work()
  return performance.now() - start
}

/** The middle one; of no goes at all, 0. */
export const median = (values: readonly number[]): number =>
  [...values].sort((one, other) => one - other)[Math.floor(values.length / 2)] ?? 0
/** The median of several goes, after a few that only warm the machine up: a server has been asked before. */
export function repeated(times: number, work: () => void): number {
  for (let go = 0; go < 3; go += 1) work()
  return median(Array.from({ length: times }, () => timed(work)))
}
