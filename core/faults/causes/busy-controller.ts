import { commonPractice } from '../../standards/source'
import type { CauseKind } from '../cause'
import { controllerPart } from '../controller-odds'

/** Neighbours on the same controller take what this run needs. */
export const busyController: CauseKind = {
  *of(scene) {
    const { length } = scene.neighbours
    if (length > 0)
      yield {
        part: controllerPart(scene),
        odds: 0.3 * Math.min(3, length),
        source: commonPractice('neighbours on one controller'),
      }
  },
  shows: {
    'not detected': 0.1,
    'usb2 only': 0.08,
    'slow copy': 0.5,
    drops: 0.3,
    'alone only': 0.85,
    'frames lost': 0.45,
    'too much current': 0.1,
  },
  words: (part) => `What else hangs on ${part} takes what this run needs.`,
  followUp: 'move neighbours',
}
