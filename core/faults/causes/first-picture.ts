import { runPart } from '../../checks/situation'
import { commonPractice } from '../../standards/source'
import type { CauseKind } from '../cause'

/** The picture that came up first holds more of the link than it sends, and this one gets what is left. */
export const firstPicture: CauseKind = {
  *of({ crossings, run, index }) {
    const pictures = crossings.filter(({ need }) => need.kind === 'picture').length
    const behindDock = index.devices.get(run.from.device)?.kind === 'dock'
    if (pictures > 1 || (pictures === 1 && behindDock))
      yield { part: runPart(run), odds: 0.8, source: commonPractice('the second display may fall to a lower rate') }
  },
  shows: { 'listed but black': 0.15, 'fewer modes': 0.35, 'low refresh': 0.55 },
  words: (part) => `The picture that came up first holds too much of ${part}, or of the link before it.`,
  followUp: 'share the link better',
}
