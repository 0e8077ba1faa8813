import { commonPractice } from '../../standards/source'
import type { CauseKind } from '../cause'
import { devicePart } from '../scene'

/** The drive is no faster, or its cache is full. */
export const slowDrive: CauseKind = {
  *of({ laid: { to }, kinds }) {
    if (kinds.has('storage'))
      yield {
        part: devicePart(to.device),
        odds: 0.8,
        source: commonPractice('a sound link held against the number on the box'),
      }
  },
  shows: { 'slow copy': 0.6 },
  words: (part) => `The drive in ${part} is no faster than that.`,
  followUp: 'expect less',
}
