import { commonPractice } from '../../standards/source'
import type { CauseKind } from '../cause'
import { devicePart } from '../scene'

/** The wanted picture mode is there, and nobody chose it. */
export const modeNotChosen: CauseKind = {
  *of({ laid: { from }, kinds }) {
    if (kinds.has('picture'))
      yield {
        part: devicePart(from.device),
        odds: 0.8,
        source: commonPractice('a blurred picture is a mode or scaling matter'),
      }
  },
  shows: { 'low refresh': 0.5, 'fewer modes': 0.12, blurred: 0.65 },
  words: (part) => `The wanted mode or scaling is not chosen on ${part}.`,
  followUp: 'choose the mode',
}
