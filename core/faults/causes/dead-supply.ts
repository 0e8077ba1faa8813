import { commonPractice } from '../../standards/source'
import type { CauseKind } from '../cause'
import { devicePart } from '../scene'

/** The own supply of a device is dead. */
export const deadSupply: CauseKind = {
  *of({ laid: { from, to } }) {
    for (const { device } of [from, to])
      if (device.kind !== 'computer' && device.kind !== 'headset')
        yield {
          part: devicePart(device),
          odds: 0.12,
          source: commonPractice('a supply dies more often than what it feeds'),
        }
  },
  shows: { 'supply dark': 0.9, 'no power': 0.6, 'not detected': 0.5, 'both black': 0.15, 'charges slowly': 0.05 },
  words: (part) => `The supply of ${part} is dead.`,
  followUp: 'replace the device',
}
