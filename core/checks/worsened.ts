import { needLabel } from '../plan/need'
import type { SiteIndex } from '../plan/site-index'
import type { Assessment } from './assess'
import type { Verdict } from './finding'

/** Something that would be graded worse than it is now. */
export type Worsened = { label: string; from: Verdict | null; to: Verdict }

const grades: Record<Verdict, number> = { clear: 0, tight: 1, blocked: 2 }

/** What is graded worse than before, and what is new and blocked. Verdicts that a change has not touched are the very same values. */
export function worsened(before: Assessment, after: Assessment, index: SiteIndex): Worsened[] {
  const found: Worsened[] = []
  const compare = (
    old: readonly { id: string; grade: Verdict }[],
    now: readonly { id: string; grade: Verdict }[],
    label: (id: string) => string,
  ): void => {
    const known = new Map(old.map((verdict) => [verdict.id, verdict]))
    for (const verdict of now) {
      const was = known.get(verdict.id)
      if (was === verdict) continue
      if (was ? grades[verdict.grade] > grades[was.grade] : verdict.grade === 'blocked')
        found.push({ label: label(verdict.id), from: was?.grade ?? null, to: verdict.grade })
    }
  }
  compare(before.runs, after.runs, (id) => index.runs.get(id)?.tag ?? id)
  compare(before.needs, after.needs, (id) => {
    const need = index.needs.get(id)
    return need ? needLabel(need, index.devices) : id
  })
  return found
}
