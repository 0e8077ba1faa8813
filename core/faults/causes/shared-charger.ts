import { portsInUse } from '../../plan/site-index'
import { commonPractice } from '../../standards/source'
import type { CauseKind } from '../cause'
import { devicePart } from '../scene'

/** A supply whose ports share what it has. */
export const sharedCharger: CauseKind = {
  *of({ index, laid: { from } }) {
    if (from.device.pool !== undefined || (from.device.kind === 'charger' && portsInUse(index, from.device).length > 1))
      yield {
        part: devicePart(from.device),
        odds: 0.7,
        source: commonPractice('multi-port chargers share what they have'),
      }
  },
  shows: { 'charges slowly': 0.6, 'headset drains': 0.4, 'alone only': 0.4, 'no power': 0.05 },
  words: (part) => `The other ports of ${part} take from what it has.`,
  followUp: 'better charger',
}
