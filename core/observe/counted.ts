import type { Observation } from './observation'

/**
 * Observations that count, oldest first: without retractions and what they retract, and without what a simulated instrument says, except on a site to
 * practise on. Of one moment their order follows from what they say alone, so neither ids nor who wrote first decides anything; what says that there is
 * nothing comes last, as the worse of two counts.
 */
export function countedOf(observations: readonly Observation[], practice: boolean): Observation[] {
  const retracted = new Set<string>()
  for (const observation of observations) if (observation.kind === 'retraction') retracted.add(observation.retracts)
  return observations
    .filter(
      ({ id, kind, instrument }) => kind !== 'retraction' && !retracted.has(id) && (practice || !instrument?.simulated),
    )
    .sort((one, other) => (one.at < other.at ? -1 : one.at > other.at ? 1 : byContent(one, other)))
}

function byContent(one: Observation, other: Observation): number {
  const nothing = Number(saysNothing(one)) - Number(saysNothing(other))
  if (nothing !== 0) return nothing
  const [first, second] = [contentOf(one), contentOf(other)]
  return first < second ? -1 : first > second ? 1 : 0
}

const saysNothing = (observation: Observation): boolean =>
  observation.kind === 'statement' && (observation.grade === null || observation.amps === null)

const contentOf = ({ id: _, by: __, ...content }: Observation): string => JSON.stringify(content)
