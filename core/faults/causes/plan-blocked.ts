import { runPart } from '../../checks/situation'
import { commonPractice } from '../../standards/source'
import type { CauseKind } from '../cause'

/** What Match calls blocked: it cannot work as it is planned. */
export const planBlocked: CauseKind = {
  *of({ blocked, run }) {
    const checks = [...new Set(blocked.map(({ check }) => check))]
    if (checks.length > 0)
      yield {
        part: { ...runPart(run), label: `${run.tag} (${checks.join(', ')})` },
        odds: 12,
        source: commonPractice('Match calls it blocked'),
      }
  },
  shows: {
    'not detected': 0.35,
    'charges only': 0.35,
    'usb2 only': 0.35,
    'slow copy': 0.35,
    drops: 0.35,
    'listed but black': 0.35,
    'fewer modes': 0.35,
    'low refresh': 0.35,
    'frames lost': 0.35,
    'charges slowly': 0.35,
    'headset drains': 0.35,
    'no power': 0.35,
    refused: 0.35,
    'reduced function': 0.35,
    'wakes on old charger': 0.35,
  },
  words: (part) => `It cannot work as planned: Match calls ${part} blocked.`,
  followUp: 'change the plan',
}
