import type { CauseKind } from '../cause'
import { controllerOdds, controllerPart } from '../controller-odds'

/** The controller behind the host port does not hold the mode with this lead, though another controller would. */
export const controllerFallsBack: CauseKind = {
  *of(scene) {
    if (scene.planned !== null) yield { part: controllerPart(scene), ...controllerOdds(scene) }
  },
  shows: {
    'not detected': 0.1,
    'usb2 only': 0.4,
    'slow copy': 0.25,
    drops: 0.35,
    'alone only': 0.2,
    'frames lost': 0.2,
  },
  words: (part) => `${part} does not hold the mode with this lead.`,
  followUp: 'use another port',
}
