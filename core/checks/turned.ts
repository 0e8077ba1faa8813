import { byId } from '../plan/lookup'
import type { SiteIndex } from '../plan/site-index'
import { needLabel } from '../vocabulary/need'
import type { Assessment } from './assess'
import { severity, type Verdict } from './finding'

/** A run or a need whose verdict is another one than before; `from` is null where it is new. */
export type Turned = { id: string; label: string; from: Verdict | null; to: Verdict }

export const isWorse = ({ from, to }: Turned): boolean =>
  from === null ? to === 'blocked' : severity[to] > severity[from]

/** The runs and then the needs whose verdicts differ between two assessments, in the order of the later. Verdicts that nothing touched are the very same values. */
export function turnedBetween(before: Assessment, after: Assessment, index: SiteIndex): Turned[] {
  return [
    ...turnedOf(before.runs, after.runs, (id) => index.runs.get(id)?.tag ?? id),
    ...turnedOf(before.needs, after.needs, (id) => {
      const need = index.needs.get(id)
      return need ? needLabel(need, index.devices) : id
    }),
  ]
}

type Graded = { id: string; grade: Verdict }

function turnedOf(before: readonly Graded[], after: readonly Graded[], label: (id: string) => string): Turned[] {
  const known = byId(before)
  return after.flatMap((verdict): Turned[] => {
    const was = known.get(verdict.id)
    if (was === verdict || was?.grade === verdict.grade) return []
    return [{ id: verdict.id, label: label(verdict.id), from: was?.grade ?? null, to: verdict.grade }]
  })
}
