import { commonPractice } from '../../standards/source'
import type { CauseKind } from '../cause'
import { devicePart } from '../scene'

/** What is installed on the computer changed, and with it what its ports do. */
export const update: CauseKind = {
  *of({ laid: { from } }) {
    if (from.device.kind === 'computer')
      yield {
        part: devicePart(from.device),
        odds: (from.device.installed?.length ?? 0) > 0 ? 0.4 : 0.25,
        source: commonPractice('updates change results in both directions'),
      }
  },
  shows: {
    'not detected': 0.15,
    'usb2 only': 0.15,
    'slow copy': 0.1,
    drops: 0.25,
    'listed but black': 0.2,
    'fewer modes': 0.2,
    refused: 0.3,
    'reduced function': 0.2,
    'frames lost': 0.15,
    'headset drains': 0.05,
  },
  words: (part) => `An update on ${part} changed what its ports do.`,
  followUp: 'update it',
}
