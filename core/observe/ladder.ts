/** How often each figure was read, the least first. */
export type Counts = readonly (readonly [figure: number, times: number])[]

/**
 * How often figures were read, and what of it still stands since the last that was less. `stands` holds, of each reading, the most that it shows and no later
 * reading takes away: a reading takes from all before it what it did not reach itself.
 */
export type Ladder = { counts: Counts; stands: Counts }

export const NO_LADDER: Ladder = { counts: [], stands: [] }

/** A ladder with one more reading, the latest. A lower bound shows that much, and takes nothing from those before it. */
export const withReading = ({ counts, stands }: Ladder, figure: number, { bound }: { bound: boolean }): Ladder => ({
  counts: bound ? counts : counted(counts, figure, 1),
  stands: bound ? counted(stands, figure, 1) : capped(stands, figure),
})

function counted(counts: Counts, figure: number, more: number): Counts {
  const at = counts.findIndex(([each]) => each >= figure)
  const found = counts[at]
  if (found === undefined) return [...counts, [figure, more]]
  return found[0] === figure
    ? counts.with(at, [figure, found[1] + more])
    : [...counts.slice(0, at), [figure, more], ...counts.slice(at)]
}

function capped(stands: Counts, figure: number): Counts {
  const below = stands.filter(([each]) => each < figure)
  const above = stands.slice(below.length).reduce((sum, [, times]) => sum + times, 0)
  return [...below, [figure, above + 1]]
}

/** How often less than a figure was read. */
export const timesBelow = ({ counts }: Ladder, figure: number): number =>
  counts.reduce((sum, [each, times]) => (each < figure ? sum + times : sum), 0)

/** How often at least a figure was read since the last time that it was less. */
export const timesSince = ({ stands }: Ladder, figure: number): number =>
  stands.reduce((sum, [each, times]) => (each >= figure ? sum + times : sum), 0)
