import { commonPractice } from '../../standards/source'
import type { CauseKind } from '../cause'
import { devicePart } from '../scene'

/** The device at the far end is broken. */
export const brokenDevice: CauseKind = {
  *of({ laid: { to } }) {
    yield {
      part: devicePart(to.device),
      odds: 0.2,
      source: commonPractice('the part is seldom what the computer blames'),
    }
  },
  shows: {
    'not detected': 0.5,
    'slow copy': 0.1,
    drops: 0.2,
    'listed but black': 0.15,
    'no power': 0.3,
    'wants format': 0.08,
    'headset drains': 0.15,
    hot: 0.06,
    'frames lost': 0.15,
    smoke: 0.3,
  },
  words: (part) => `${part} is broken.`,
  followUp: 'replace the device',
}
