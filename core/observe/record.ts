import type { Cable } from '../plan/cable'
import type { SiteIndex } from '../plan/site-index'
import type { LinkMode } from '../standards/link-modes'
import { trialOf } from './trials'

export type KindRecord = { passed: number; tried: number }

/** Records that were asked for, kept as long as neither the cables nor what was learnt of them has changed. */
const asked = new WeakMap<
  SiteIndex['learned'],
  { cables: SiteIndex['cablesOfKind']; records: Map<string, KindRecord> }
>()

/** What cables of one kind did in one mode on one controller, each counted once by what its trials come to. */
export function recordOfKindOn(
  index: SiteIndex,
  kind: string,
  mode: LinkMode,
  controller: string | undefined,
): KindRecord {
  let kept = asked.get(index.learned)
  if (kept?.cables !== index.cablesOfKind) {
    kept = { cables: index.cablesOfKind, records: new Map() }
    asked.set(index.learned, kept)
  }
  const key = `${kind} ${mode} ${controller ?? ''}`
  const found = kept.records.get(key)
  if (found) return found
  const verdicts = (index.cablesOfKind.get(kind) ?? []).flatMap((cable: Cable) => {
    const trials = index.learned.cables.get(cable.id)?.trials ?? []
    return trialOf(trials, mode, controller) ?? []
  })
  const record = { passed: verdicts.filter(({ passed }) => passed).length, tried: verdicts.length }
  kept.records.set(key, record)
  return record
}
