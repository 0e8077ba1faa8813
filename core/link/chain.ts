import { type Trial, trialOf } from '../observe/trials'
import type { Policy } from '../plan/policy'
import type { Metres } from '../quantity/length'
import { atMost } from '../quantity/limit'
import type { LinkMode } from '../standards/link-modes'
import type { Reach } from '../standards/reach'
import { commonPractice, type Source } from '../standards/source'
import type { LaidLead } from './lay'

/** Why one lead of a chain does not carry something. */
export type Lack<T> =
  | { why: 'grade'; lead: LaidLead; mode: T }
  | { why: 'reach'; lead: LaidLead; mode: T; reach: Metres; source: Source }
  | { why: 'chain'; lead: LaidLead; mode: T; reach: Metres; total: Metres; source: Source }
  | { why: 'unfed'; lead: LaidLead; mode: T }
  | { why: 'failed'; lead: LaidLead; mode: T; trial: Trial }

const bench = commonPractice('what this lead has passed')

/**
 * Whether a row of leads carries `mode`; if not, which lead is the first that does not, and why.
 *
 * Passive leads in series share one budget: each uses the share `length / reach` of it, so two 5 m USB 2.0 extensions are
 * twice too long (common practice). An active or optical lead repeats the signal and starts a new budget. `passed` names leads that a trial has
 * shown to carry the mode at their length: each reaches as far as it did alone, and uses up its share of a row all the same.
 */
export function chainLack<T>(
  leads: readonly LaidLead[],
  mode: T,
  rowsOf: (lead: LaidLead) => readonly Reach<T>[],
  passed: (lead: LaidLead) => boolean,
): Lack<T> | null {
  let share = 0
  let total = 0
  for (const lead of leads) {
    const { length, construction, feed } = lead.cable
    const tried = passed(lead)
    const row =
      rowsOf(lead).find((candidate) => candidate.mode === mode) ?? (tried ? { reach: length, source: bench } : null)
    if (!row) return { why: 'grade', lead, mode }
    if (!tried && feed === 'required' && lead.feeding === 'unfed') return { why: 'unfed', lead, mode }
    const reach = tried ? Math.max(row.reach, length) : row.reach
    if (!atMost(length, reach)) return { why: 'reach', lead, mode, reach, source: row.source }
    if (construction !== 'passive') {
      share = 0
      total = 0
      continue
    }
    share += length / reach
    total += length
    if (!atMost(share, 1)) return { why: 'chain', lead, mode, reach, total, source: row.source }
  }
  return null
}

/**
 * Why a chain does not carry a data mode, with the record of the bench weighed by the site's policy; null where it does. `proofs` are trials of this
 * very chain as it lay: by the bench, what the whole has passed counts as well.
 */
export function dataLack(
  leads: readonly LaidLead[],
  mode: LinkMode,
  policy: Policy,
  controller: string | undefined,
  proofs: readonly Trial[] = [],
): Lack<LinkMode> | null {
  let passes: Set<LaidLead> | null = null
  for (const lead of leads) {
    if (lead.known.trials.length === 0) continue
    const verdict = trialOf(lead.known.trials, mode, controller)
    if (verdict && !verdict.passed) return { why: 'failed', lead, mode, trial: verdict.trial }
    if (verdict && policy.length === 'bench') {
      passes ??= new Set()
      passes.add(lead)
    }
  }
  if (policy.length === 'bench' && trialOf(proofs, mode, controller)?.passed) return null
  return chainLack(leads, mode, dataRows, (lead) => passes?.has(lead) ?? false)
}

const dataRows = (lead: LaidLead): readonly Reach<LinkMode>[] => lead.reach.data
