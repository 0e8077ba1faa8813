import { commonPractice } from '../../standards/source'
import type { CauseKind } from '../cause'
import { devicePart } from '../scene'

/** The system on the computer is too old to know the mode. */
export const oldSystem: CauseKind = {
  *of({ laid: { from } }) {
    if (from.device.kind === 'computer')
      yield { part: devicePart(from.device), odds: 0.2, source: commonPractice('the system must know the mode too') }
  },
  shows: { 'not detected': 0.2, 'fewer modes': 0.3, 'usb2 only': 0.1, refused: 0.4, 'reduced function': 0.45 },
  words: (part) => `The system of ${part} does not know the mode.`,
  followUp: 'update it',
}
