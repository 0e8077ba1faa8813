import { runPart } from '../../checks/situation'
import { passedBy } from '../../checks/surroundings'
import { commonPractice } from '../../standards/source'
import type { CauseKind } from '../cause'

/** Motors, mains or other noise beside its pathway. */
export const noise: CauseKind = {
  *of(scene) {
    const passed = passedBy(scene)
    const odds = passed.has('motors') ? 0.9 : passed.has('mains') ? 0.4 : 0.06
    yield { part: runPart(scene.run), odds, source: commonPractice('noise beside motors and mains') }
  },
  shows: { drops: 0.45, 'frames lost': 0.4, 'usb2 only': 0.05, 'slow copy': 0.05, 'listed but black': 0.05 },
  words: (part) => `Noise beside ${part} gets into it.`,
  followUp: 'move it away',
}
