import { countedOf } from './counted'
import { goOnLearning, type Learning, type Learnt, learntFrom, NOTHING_LEARNT } from './learnt'
import { type Observation, setsRight, teach } from './observation'
import { spotOf } from './spot'

/** Folds what counts of one cable or run, oldest first. What is kept does not grow with how often something was seen. */
export function learn(counted: readonly Observation[]): Learnt {
  if (counted.length === 0) return NOTHING_LEARNT
  return taught(goOnLearning(NOTHING_LEARNT, rightsOf(counted)), counted)
}

/** The same with what was seen since; null where all has to be gone through anew: some of it is no later than what is known, or changes what came before it. */
export function learnMore(learnt: Learnt, added: readonly Observation[], practice: boolean): Learnt | null {
  if (added.some((each) => each.at <= learnt.latest || each.kind === 'retraction' || setsRight(each))) return null
  const counted = countedOf(added, practice)
  return counted.length === 0 ? learnt : taught(goOnLearning(learnt, []), counted)
}

function taught(learning: Learning, counted: readonly Observation[]): Learnt {
  for (const observation of counted) {
    teach(learning, observation)
    learning.latest = observation.at
  }
  // of each who counted, the latest word on a mode
  if (learning.counted.length > 1)
    learning.counted = [...new Map(learning.counted.map((each) => [`${each.from} ${each.mode}`, each])).values()]
  return learntFrom(learning)
}

const rightsOf = (counted: readonly Observation[]): Learning['rights'] =>
  counted.filter(setsRight).map((each) => ({ at: each.at, port: spotOf(each).port }))
