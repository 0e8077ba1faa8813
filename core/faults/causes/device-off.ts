import { commonPractice } from '../../standards/source'
import type { CauseKind } from '../cause'
import { devicePart } from '../scene'

/** The device at the far end is off or asleep. */
export const deviceOff: CauseKind = {
  *of({ laid: { to } }) {
    if (to.device.kind !== 'computer')
      yield { part: devicePart(to.device), odds: 0.4, source: commonPractice('devices that are off or asleep') }
  },
  shows: { 'not detected': 0.6, 'listed but black': 0.2, 'both black': 0.15, 'no power': 0.4, 'charges slowly': 0.03 },
  words: (part) => `${part} is off or asleep.`,
  followUp: 'switch it on',
}
