import { commonPractice } from '../../standards/source'
import type { CauseKind } from '../cause'
import { devicePart } from '../scene'

/** A driver of a device that was plugged in long ago is in the way. */
export const staleDriver: CauseKind = {
  *of({ laid: { from } }) {
    if (from.device.kind === 'computer')
      yield {
        part: devicePart(from.device),
        odds: 0.5,
        source: commonPractice('stale drivers after years of plugging different devices'),
      }
  },
  shows: {
    'not detected': 0.35,
    'charges only': 0.2,
    'usb2 only': 0.04,
    'slow copy': 0.08,
    refused: 0.2,
    'nothing new appears': 0.9,
    'frames lost': 0.12,
    'low refresh': 0.06,
  },
  words: (part) => `Old drivers on ${part} get in the way.`,
  followUp: 'clean up drivers',
}
