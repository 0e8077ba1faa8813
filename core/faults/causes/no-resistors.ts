import { commonPractice } from '../../standards/source'
import type { CauseKind } from '../cause'
import { farPart } from '../scene'

/** A device without the two type-C resistors: a C-to-C lead gives it nothing. */
export const noResistors: CauseKind = {
  *of(scene) {
    const { port } = scene.laid.to
    if (port.connector !== 'type-c') return
    const odds = port.lacksResistors ? 3 : 0.1
    yield { part: farPart(scene), odds, source: commonPractice('devices that only charge from an A-to-C lead') }
  },
  shows: { 'wakes on old charger': 0.9, 'no power': 0.7, 'not detected': 0.4 },
  words: (part) => `${part} takes power from an A-to-C lead only.`,
  followUp: 'old lead',
}
