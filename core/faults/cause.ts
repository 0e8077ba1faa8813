import type { Part } from '../checks/finding'
import type { Source } from '../standards/source'
import type { Symptom } from '../vocabulary/search'
import type { Scene } from './scene'

/** What is done once a cause is found. Causes of one part that ask for the same are settled together. */
export const FOLLOW_UPS = [
  'replace lead',
  'shorter or better lead',
  'turn it round',
  'feed it',
  'push it in',
  'use another port',
  'correct the survey',
  'move neighbours',
  'clean up drivers',
  'restart it',
  'update it',
  'choose the mode',
  'choose the input',
  'switch it on',
  'share the link better',
  'replace the device',
  'better charger',
  'old lead',
  'own supply',
  'expect less',
  'rescue the data',
  'move it away',
  'change the plan',
  'ask further',
] as const
export type FollowUp = (typeof FOLLOW_UPS)[number]

/** Where in a run a cause of a kind may sit, and how often it is to blame there beside the other causes. */
export type Suspect = { part: Part; odds: number; source: Source }

/** One kind of cause. Adding one is adding a file like those in `causes/` and a line in the list. */
export type CauseKind = {
  /** The parts of the run that can have it. Nothing comes where the run has no such part. */
  of(scene: Scene): Iterable<Suspect>
  /**
   * How likely people see each symptom where this is the cause; what is not listed is seen by chance. The figures are Hallway's own estimates, in the order that
   * common practice has them.
   */
  shows: Partial<Record<Symptom, number>>
  /** What is wrong, as a sentence about its part. */
  words(part: string): string
  followUp: FollowUp
}

/** How often a symptom is told that a cause does not make. */
export const BY_CHANCE = 0.01
