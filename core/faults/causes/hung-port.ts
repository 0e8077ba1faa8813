import { commonPractice } from '../../standards/source'
import type { CauseKind } from '../cause'
import { devicePart } from '../scene'

/** The host or what is plugged into it is stuck until it is restarted. */
export const hungPort: CauseKind = {
  *of({ laid: { from } }) {
    yield { part: devicePart(from.device), odds: 0.6, source: commonPractice('a restart has cured drops') }
  },
  shows: {
    'not detected': 0.45,
    'charges only': 0.2,
    'usb2 only': 0.15,
    drops: 0.12,
    'listed but black': 0.25,
    'low refresh': 0.08,
    'both black': 0.1,
    refused: 0.1,
    'charges slowly': 0.1,
    'nothing new appears': 0.2,
  },
  words: (part) => `${part} is stuck until it is restarted.`,
  followUp: 'restart it',
}
