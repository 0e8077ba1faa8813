import type { Trial } from '../plan/cable'
import type { Policy } from '../plan/policy'
import type { Metres } from '../quantity/length'
import { isBetterMode, type LinkMode, pairRate } from '../standards/link-modes'
import type { Reach } from '../standards/reach'
import type { Source } from '../standards/source'
import type { LaidLead } from './lay'

/** Why one lead of a chain does not carry something. */
export type Lack<T> =
  | { why: 'grade'; lead: LaidLead; mode: T }
  | { why: 'reach'; lead: LaidLead; mode: T; reach: Metres; source: Source }
  | { why: 'chain'; lead: LaidLead; mode: T; reach: Metres; total: Metres; source: Source }
  | { why: 'unfed'; lead: LaidLead; mode: T }
  | { why: 'failed'; lead: LaidLead; mode: T; trial: Trial }

/** Beyond the sum of rounding in a row of leads. */
const HAIR = 1e-9

/**
 * Whether a row of leads carries `mode`; if not, which lead is the first that does not, and why.
 *
 * Passive leads in series share one budget: each uses the share `length / reach` of it, so two 5 m USB 2.0 extensions are
 * twice too long (common practice). An active or optical lead repeats the signal and starts a new budget. `passed` names
 * leads that a trial has shown to carry the mode, whatever their length.
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
    if (passed(lead)) continue
    const row = rowsOf(lead).find((candidate) => candidate.mode === mode)
    if (!row) return { why: 'grade', lead, mode }
    const { length, construction, feed } = lead.cable
    if (feed === 'required' && lead.feeding === 'unfed') return { why: 'unfed', lead, mode }
    if (length > row.reach + HAIR) return { why: 'reach', lead, mode, reach: row.reach, source: row.source }
    if (construction !== 'passive') {
      share = 0
      total = 0
      continue
    }
    share += length / row.reach
    total += length
    if (share > 1 + HAIR) return { why: 'chain', lead, mode, reach: row.reach, total, source: row.source }
  }
  return null
}

/** What trials say of one lead in one mode on one controller: the latest counts, a soak before a shorter look on the same day. */
export function trialOf(
  trials: readonly Trial[],
  mode: LinkMode,
  controller: string | undefined,
): { passed: boolean; trial: Trial } | null {
  let latest: { passed: boolean; trial: Trial } | null = null
  for (const trial of trials) {
    if (trial.controller !== undefined && trial.controller !== controller) continue
    const passed = trial.cameUp === mode
    if (!passed && !failedAt(trial, mode)) continue
    if (latest === null || trial.on > latest.trial.on || (trial.on === latest.trial.on && trial.basis === 'soaked'))
      latest = { passed, trial }
  }
  return latest
}

/**
 * A trial that came up lower than it tried rules out all in between, and a link that dropped in a soak the mode it dropped in; both rule out
 * whatever asks as much or more of the same pairs: a lead that does not hold Thunderbolt at 40 Gb/s does not hold USB4 at 40 Gb/s.
 */
function failedAt({ tried, cameUp, basis }: Trial, mode: LinkMode): boolean {
  if (!isBetterMode(tried, cameUp)) return false
  const asksAsMuch = isBetterMode(mode, cameUp) && pairRate(mode) >= pairRate(tried)
  if (cameUp === null && basis === 'soaked') return mode === tried || asksAsMuch
  return asksAsMuch || (isBetterMode(mode, cameUp) && !isBetterMode(mode, tried))
}

/** Why a chain does not carry a data mode, with the evidence of the bench weighed by the site's policy; null where it does. */
export function dataLack(
  leads: readonly LaidLead[],
  mode: LinkMode,
  policy: Policy,
  controller: string | undefined,
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
  return chainLack(leads, mode, dataRows, (lead) => passes?.has(lead) ?? false)
}

const dataRows = (lead: LaidLead): readonly Reach<LinkMode>[] => lead.reach.data
