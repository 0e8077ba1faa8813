import { runPart } from '../../checks/situation'
import { commonPractice } from '../../standards/source'
import type { CauseKind } from '../cause'

/** A plug that is not pushed home. */
export const loosePlug: CauseKind = {
  *of({ run }) {
    yield { part: runPart(run), odds: 0.7, source: commonPractice('plugs that are not pushed home') }
  },
  shows: {
    'not detected': 0.45,
    'charges only': 0.1,
    'usb2 only': 0.2,
    drops: 0.4,
    'listed but black': 0.2,
    'charges slowly': 0.1,
    'headset drains': 0.05,
    'no power': 0.25,
    'frames lost': 0.15,
    hot: 0.03,
  },
  words: (part) => `A plug of ${part} is not pushed home.`,
  followUp: 'push it in',
}
