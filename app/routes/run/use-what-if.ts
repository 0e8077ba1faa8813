import { useMemo } from 'react'
import { type Assessed, assessAnew } from '../../../core/checks/assess'
import { type Turned, turnedBetween } from '../../../core/checks/turned'
import { roomOf } from '../../../core/remedy/room'
import { type WhatIf, whatIfsFor } from '../../../core/variants/what-ifs'
import type { Run } from '../../../core/vocabulary/run'
import { useSite } from '../../ui/site-context'

/** What can be tried beside what was typed, what of that is, and what both change. */
export type TriedBeside = {
  whatIfs: readonly WhatIf[]
  whatIf: WhatIf | null
  /** Verdicts that are others than those of the saved plan. */
  turned: readonly Turned[]
}

/**
 * A site as it was drafted with what is tried on some of its runs, which one need or another takes. With a what-if what they can bear on is judged, and not the
 * whole site.
 */
export function useWhatIf(
  drafted: Assessed,
  runs: readonly Run[],
  words: string | null,
): TriedBeside & { judged: Assessed } {
  const { assessed } = useSite()
  const whatIfs = useMemo(() => whatIfsFor(drafted.index, runs, drafted.walks.crossings), [drafted, runs])
  const whatIf = words === null ? null : (whatIfs.find((each) => each.words === words) ?? null)
  const judged = useMemo(() => {
    const [first] = runs
    return whatIf && first ? assessAnew(whatIf.change(roomOf(drafted.index, first.id))) : drafted
  }, [drafted, runs, whatIf])
  const turned = useMemo(
    () =>
      judged === assessed
        ? []
        : turnedBetween(assessed.assessment, judged.assessment, judged.index).filter(({ from }) => from !== null),
    [assessed, judged],
  )
  return { whatIfs, whatIf, judged, turned }
}
