import { useMemo } from 'react'
import { type Assessed, assessAnew } from '../../../core/checks/assess'
import { type Turned, turnedBetween } from '../../../core/checks/turned'
import { roomOf } from '../../../core/remedy/room'
import { type Trial, trialsFor } from '../../../core/variants/trials'
import type { Run } from '../../../core/vocabulary/run'
import { useSite } from '../../ui/site-context'

/** What can be tried beside what was typed, what of that is, and what both change. */
export type TriedBeside = {
  trials: readonly Trial[]
  trial: Trial | null
  /** Verdicts that are others than those of the saved plan. */
  turned: readonly Turned[]
}

/**
 * A site as it was drafted with what is tried on some of its runs, which one need or another takes. With a trial what they can bear on is judged, and not the
 * whole site.
 */
export function useTrial(
  drafted: Assessed,
  runs: readonly Run[],
  words: string | null,
): TriedBeside & { judged: Assessed } {
  const { assessed } = useSite()
  const trials = useMemo(() => trialsFor(drafted.index, runs, drafted.walks.crossings), [drafted, runs])
  const trial = words === null ? null : (trials.find((each) => each.words === words) ?? null)
  const judged = useMemo(() => {
    const [first] = runs
    return trial && first ? assessAnew(trial.change(roomOf(drafted.index, first.id))) : drafted
  }, [drafted, runs, trial])
  const turned = useMemo(
    () =>
      judged === assessed
        ? []
        : turnedBetween(assessed.assessment, judged.assessment, judged.index).filter(({ from }) => from !== null),
    [assessed, judged],
  )
  return { trials, trial, judged, turned }
}
