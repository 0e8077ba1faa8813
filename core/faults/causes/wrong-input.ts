import { commonPractice } from '../../standards/source'
import type { CauseKind } from '../cause'
import { devicePart } from '../scene'

/** The display looks at another of its inputs. */
export const wrongInput: CauseKind = {
  *of({ laid: { to } }) {
    if (to.device.kind === 'display' || to.device.kind === 'projector')
      yield { part: devicePart(to.device), odds: 0.6, source: commonPractice('displays that look at another input') }
  },
  shows: { 'listed but black': 0.5, 'not detected': 0.3, 'both black': 0.2 },
  words: (part) => `${part} looks at another of its inputs.`,
  followUp: 'choose the input',
}
