import { commonPractice } from '../../standards/source'
import type { CauseKind } from '../cause'
import { farPart } from '../scene'

/** A battery so flat that the device does not ask for power. */
export const flatBattery: CauseKind = {
  *of(scene) {
    if (scene.laid.to.port.takes !== undefined)
      yield {
        part: farPart(scene),
        odds: 0.12,
        source: commonPractice('a dead tablet that only wakes on an old charger'),
      }
  },
  shows: { 'wakes on old charger': 0.7, 'no power': 0.6, 'not detected': 0.3 },
  words: (part) => `The battery at ${part} is too flat to ask for power.`,
  followUp: 'old lead',
}
