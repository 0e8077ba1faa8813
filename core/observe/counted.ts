import { type Measure, worthOf } from './figures'
import { nameOfKind, type Observation } from './observation'

/**
 * Observations that count, oldest first: without retractions and what they retract, and without what a simulated instrument says, except on a site to
 * practise on. Of one moment the worse comes last, as the worse of two counts; neither notes nor who wrote first decide anything, so that a reader who is kept
 * from notes comes to the same.
 */
export function countedOf(observations: readonly Observation[], practice: boolean): Observation[] {
  const retracted = new Set<string>()
  for (const observation of observations) if (observation.kind === 'retraction') retracted.add(observation.retracts)
  return observations
    .filter(
      ({ id, kind, instrument }) => kind !== 'retraction' && !retracted.has(id) && (practice || !instrument?.simulated),
    )
    .sort((one, other) => (one.at < other.at ? -1 : one.at > other.at ? 1 : ofOneMoment(one, other)))
}

function ofOneMoment(one: Observation, other: Observation): number {
  const worse = badness(one) - badness(other)
  if (worse !== 0) return worse
  return one.id < other.id ? -1 : one.id > other.id ? 1 : 0
}

/** The more, the worse: what says that there is nothing, what takes something away, a figure that is worth less. */
function badness(observation: Observation): number {
  switch (observation.kind) {
    case 'statement':
      return Number(observation.grade === null || observation.amps === null)
    case 'laid':
    case 'accepted':
      return Number(observation.what === 'taken out' || observation.what === 'withdrawn')
    case 'reading': {
      const measure = nameOfKind(observation)
      if (measure === 'picture' || measure === 'job') return 0
      return -(worthOf(measure as Measure, observation as never) ?? 0)
    }
    default:
      return 0
  }
}
