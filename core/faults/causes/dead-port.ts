import { commonPractice } from '../../standards/source'
import type { CauseKind } from '../cause'
import { hostPart } from '../scene'

/** A port that is switched off or broken. */
export const deadPort: CauseKind = {
  *of(scene) {
    yield { part: hostPart(scene), odds: 0.12, source: commonPractice('a dead port is rare') }
  },
  shows: { 'not detected': 0.85, 'charges only': 0.3, 'no power': 0.5, 'too much current': 0.15 },
  words: (part) => `The port ${part} is switched off or broken.`,
  followUp: 'use another port',
}
