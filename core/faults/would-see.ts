import { citeSource } from '../standards/source'
import { SYMPTOMS, type Symptom } from '../vocabulary/search'
import { BY_CHANCE } from './cause'
import { type Cause, causesOf, causeWords, followUpOf, showsOf } from './causes'
import { posterior } from './odds'
import type { Scene } from './scene'
import { symptomFacts, symptomsOf } from './symptoms'
import { triesOf } from './tries'

/** What a run would show if a cause were to blame, and the try that tells it best from all others. */
export type WouldSee = {
  key: string
  words: string
  usual: number
  source: string
  shows: readonly { symptom: Symptom; saw: string; odds: number }[]
  /** The cause that shows most nearly the same and asks for something else. */
  alike: string | null
  tells: { how: string; odds: number; otherwise: number; outcome: string } | null
}

/** The look the other way: for every cause of a run what people would see, and what tells it from those that look alike. The likeliest first. */
export function wouldSee(scene: Scene): WouldSee[] {
  const [causes, attempts] = [causesOf(scene), triesOf(scene)]
  const before = posterior(
    causes.map(({ odds }) => odds),
    [],
  )
  return causes
    .map((cause, at): WouldSee => {
      const shows = symptomsOf(scene)
        .map((symptom) => ({ symptom, saw: symptomFacts[symptom].saw, odds: oddsOf(cause, symptom) }))
        .filter(({ odds }) => odds >= OFTEN)
        .sort((one, other) => other.odds - one.odds)
      const alike = nearestLookAlike(causes, cause)
      const tells = attempts
        .flatMap(({ how, outcomes }) =>
          outcomes.map(({ says, odds }) => ({
            how,
            outcome: says,
            odds: odds(cause),
            otherwise: alike ? odds(alike) : 0,
          })),
        )
        .reduce<WouldSee['tells']>(
          (best, each) => (best && best.odds - best.otherwise >= each.odds - each.otherwise ? best : each),
          null,
        )
      return {
        key: cause.key,
        words: causeWords(cause),
        usual: before[at] ?? 0,
        source: citeSource(cause.source),
        shows,
        alike: alike ? causeWords(alike) : null,
        tells: tells && tells.odds - tells.otherwise > TELLS ? tells : null,
      }
    })
    .sort((one, other) => other.usual - one.usual)
}
const OFTEN = 0.15
const TELLS = 0.3

const oddsOf = (cause: Cause, symptom: Symptom): number => showsOf(cause)[symptom] ?? BY_CHANCE

/** The cause that asks for something else and shows most nearly the same. */
function nearestLookAlike(causes: readonly Cause[], own: Cause): Cause | null {
  const distance = (cause: Cause): number =>
    SYMPTOMS.reduce((sum, symptom) => sum + Math.abs(oddsOf(cause, symptom) - oddsOf(own, symptom)), 0)
  return causes
    .filter((cause) => followUpOf(cause) !== followUpOf(own) && cause.name !== 'something else')
    .reduce<Cause | null>((near, cause) => (near && distance(near) <= distance(cause) ? near : cause), null)
}
