import type { Symptom } from '../vocabulary/search'
import { BY_CHANCE } from './cause'
import { type Cause, showsOf } from './causes'
import { type Evidence, symptomLikelihood } from './odds'

/** How a symptom is told: somebody saw it, or looked and it is not there. */
export type Told = 'seen' | 'absent'

export const symptomEvidence = (causes: readonly Cause[], symptom: Symptom, told: Told): Evidence => ({
  key: `look: ${symptom}`,
  words: symptom,
  likelihood: symptomLikelihood(
    causes.map((cause) => showsOf(cause)[symptom] ?? BY_CHANCE),
    told,
  ),
})
