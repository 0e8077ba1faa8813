import { portPart } from '../../checks/situation'
import { commonPractice } from '../../standards/source'
import type { CauseKind } from '../cause'

/** A port that does less than the survey says: of four sockets that look alike two may be plain. One that was read off the device is sure. */
export const lesserPort: CauseKind = {
  *of({ laid }) {
    for (const socket of [laid.from, laid.to])
      yield {
        part: portPart(socket),
        odds: socket.device.seen === undefined ? 0.5 : 0.1,
        source: commonPractice('sockets that look alike do different things'),
      }
  },
  shows: {
    'not detected': 0.2,
    'usb2 only': 0.35,
    'slow copy': 0.3,
    'listed but black': 0.1,
    'fewer modes': 0.35,
    'low refresh': 0.3,
    'charges slowly': 0.2,
    refused: 0.15,
    'reduced function': 0.3,
  },
  words: (part) => `The port ${part} does less than the survey says.`,
  followUp: 'correct the survey',
}
