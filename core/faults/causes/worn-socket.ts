import { portPart } from '../../checks/situation'
import { commonPractice } from '../../standards/source'
import type { CauseKind } from '../cause'

/** A socket that is worn, bent or full of dust. */
export const wornSocket: CauseKind = {
  *of({ laid }) {
    for (const socket of [laid.from, laid.to])
      if (!socket.port.captive)
        yield { part: portPart(socket), odds: 0.2, source: commonPractice('sockets wear and fill with dust') }
  },
  shows: {
    'not detected': 0.3,
    'usb2 only': 0.25,
    drops: 0.4,
    'listed but black': 0.1,
    'charges slowly': 0.15,
    hot: 0.12,
    'frames lost': 0.1,
    'no power': 0.1,
  },
  words: (part) => `The socket ${part} is worn or dirty.`,
  followUp: 'use another port',
}
