import type { LackFigures } from './finding'
import type { RemedyOf } from './remedies'

export const LACK_REMEDIES = ['feed-lead', 'test-it', 'other-lead', 'better-grade', 'shorter', 'active'] as const

/** What would carry the mode that a lead lacks. */
export function* remediesFor(lack: LackFigures): Iterable<RemedyOf<(typeof LACK_REMEDIES)[number]>> {
  if (lack.unfed) yield { code: 'feed-lead' }
  if (lack.why === 'unfed') return
  if (lack.why === 'doubted' || lack.failed?.stale) yield { code: 'test-it' }
  else if (lack.why === 'failed') yield { code: 'other-lead' }
  else if (lack.why === 'grade' || lack.reach === null) yield { code: 'better-grade', mode: lack.mode }
  else {
    yield { code: 'shorter', reach: lack.reach, mode: lack.mode }
    if (lack.passive) yield { code: 'active', length: lack.length, mode: lack.mode }
  }
}
