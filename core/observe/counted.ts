import type { Observation } from '../plan/observation'

/**
 * Observations that count, oldest first, of one moment in the order they were written down: without retractions and what they retract, and
 * without what a simulated instrument says, except on a site to practise on.
 */
export function countedOf(observations: readonly Observation[], practice: boolean): Observation[] {
  const retracted = new Set<string>()
  for (const observation of observations) if (observation.kind === 'retraction') retracted.add(observation.retracts)
  return observations
    .filter(
      ({ id, kind, instrument }) => kind !== 'retraction' && !retracted.has(id) && (practice || !instrument?.simulated),
    )
    .sort((one, other) => (one.at < other.at ? -1 : one.at > other.at ? 1 : 0))
}
