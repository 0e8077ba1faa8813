import type { Instant } from '../plan/fields'
import type { TrialObservation } from '../plan/observation'
import { isBetterMode, type LinkMode, pairRate } from '../standards/link-modes'
import { SHORTEST_SOAK_SECONDS } from '../standards/soak'

/** What came up when a mode was tried, as far as it weighs. */
export type Trial = Pick<TrialObservation, 'basis' | 'tried' | 'cameUp' | 'seconds'> & {
  at: Instant
  controller?: string
}

export const trialFrom = ({ at, basis, tried, cameUp, seconds, where }: TrialObservation): Trial => ({
  at,
  basis,
  tried,
  cameUp,
  ...(seconds === undefined ? {} : { seconds }),
  ...(where?.controller === undefined ? {} : { controller: where.controller }),
})

/** A trial says something of one controller where it was made there, or where nobody noted where it was made. */
export const madeOn = (trial: Trial, controller: string | undefined): boolean =>
  trial.controller === undefined || trial.controller === controller

/**
 * What trials, oldest first, say of one mode on one controller. The latest counts; but a link that was seen to drop is cleared only by a look that
 * lasted at least as long: a marginal lead looks fine for 45 seconds and drops a minute later (common practice).
 */
export function trialOf(
  trials: readonly Trial[],
  mode: LinkMode,
  controller: string | undefined,
): { passed: boolean; trial: Trial } | null {
  let standing: { passed: boolean; trial: Trial } | null = null
  /** Seconds a look must last to clear what failed. */
  let toClear = 0
  for (const trial of trials) {
    if (!madeOn(trial, controller)) continue
    if (failedAt(trial, mode)) {
      toClear = Math.max(standing?.passed === false ? toClear : 0, secondsToClear(trial))
      standing = { passed: false, trial }
    } else if (trial.cameUp === mode && (standing?.passed !== false || (trial.seconds ?? 0) >= toClear))
      standing = { passed: true, trial }
  }
  return standing
}

const dropped = ({ cameUp, basis }: Trial): boolean => cameUp === null && basis === 'soaked'
const secondsToClear = (trial: Trial): number => (dropped(trial) ? (trial.seconds ?? SHORTEST_SOAK_SECONDS) : 0)

/**
 * A trial that came up lower than it tried rules out all in between, and a link that dropped in a soak the mode it dropped in; both rule out
 * whatever asks as much or more of the same pairs: a lead that does not hold Thunderbolt at 40 Gb/s does not hold USB4 at 40 Gb/s.
 */
export function failedAt(trial: Trial, mode: LinkMode): boolean {
  const { tried, cameUp } = trial
  if (!isBetterMode(tried, cameUp)) return false
  const asksAsMuch = isBetterMode(mode, cameUp) && pairRate(mode) >= pairRate(tried)
  if (dropped(trial)) return mode === tried || asksAsMuch
  return asksAsMuch || (isBetterMode(mode, cameUp) && !isBetterMode(mode, tried))
}

/** Trials of which a later, as long or longer one of the same outcome says all they say are left out. */
export function withoutRepeats(trials: readonly Trial[]): Trial[] {
  const kept: Trial[] = []
  const longest = new Map<string, number>()
  for (const trial of trials.toReversed()) {
    const outcome = `${trial.basis} ${trial.tried} ${trial.cameUp} ${trial.controller ?? ''}`
    const seconds = trial.seconds ?? (dropped(trial) ? SHORTEST_SOAK_SECONDS : 0)
    if (seconds <= (longest.get(outcome) ?? -1)) continue
    longest.set(outcome, seconds)
    kept.push(trial)
  }
  return kept.reverse()
}
