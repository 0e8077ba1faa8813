import { commonPractice } from '../../standards/source'
import type { CauseKind } from '../cause'
import { devicePart } from '../scene'

/** The file system of a disk is damaged, or not one that this computer reads. */
export const damagedFiles: CauseKind = {
  *of({ laid: { to }, kinds }) {
    if (kinds.has('storage'))
      yield { part: devicePart(to.device), odds: 0.4, source: commonPractice('a disk that asks to be formatted') }
  },
  shows: { 'wants format': 0.95, 'slow copy': 0.06, 'not detected': 0.05 },
  words: (part) => `The files on ${part} are damaged, or this computer cannot read them.`,
  followUp: 'rescue the data',
}
