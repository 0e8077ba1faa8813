import type { LogPosition } from '../change/change'
import type { Assessed } from '../checks/assess'
import type { Run } from '../vocabulary/run'
import { laidCables } from '../vocabulary/run'
import type { InSlices } from '../work/in-slices'
import { findWaysOut, type WaysOut } from './search'

/** One run with its way out. */
export type WayForRun = { run: string; found: WaysOut }

/** A way out for each of some runs, one after the other: a lead that one of them takes is no longer there for those behind it. */
export function* wayForEach(
  site: Assessed,
  runs: readonly string[],
  base: LogPosition,
  tell: (done: number) => void = () => {},
): InSlices<WayForRun[]> {
  const answers: WayForRun[] = []
  const given = new Map<string, Run>()
  for (const [at, run] of runs.entries()) {
    tell(at)
    const found = yield* findWaysOut(site, run, base, 'one', given)
    for (const edit of found.ways[0]?.edits ?? []) {
      if (edit.list !== 'runs' || edit.value === null) continue
      const laid = edit.value as Run
      for (const cable of laidCables(laid)) given.set(cable, laid)
    }
    answers.push({ run, found })
  }
  return answers
}
