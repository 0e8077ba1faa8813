import { commonPractice } from '../../standards/source'
import { passesThrough } from '../../vocabulary/device'
import type { CauseKind } from '../cause'
import { devicePart } from '../scene'

/** A dock, hub or extender that fails or is stuck. */
export const hubFault: CauseKind = {
  *of({ laid: { from, to } }) {
    for (const { device } of [from, to])
      if (passesThrough(device))
        yield { part: devicePart(device), odds: 0.4, source: commonPractice('docks and hubs that fail') }
  },
  shows: {
    'not detected': 0.3,
    'usb2 only': 0.2,
    'slow copy': 0.2,
    drops: 0.3,
    'listed but black': 0.15,
    'both black': 0.15,
    'frames lost': 0.2,
    'charges slowly': 0.15,
    refused: 0.05,
  },
  words: (part) => `${part} fails or is stuck.`,
  followUp: 'replace the device',
}
