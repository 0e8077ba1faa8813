import { leadPart } from '../../checks/situation'
import { commonPractice } from '../../standards/source'
import type { CauseKind } from '../cause'
import { NEAR_ITS_LIMIT, shareOfReach } from '../lead-odds'
import { looseLeads } from '../scene'

/** A lead near or beyond the length that its rate allows: it may come up, and drop or fall back. */
export const longLead: CauseKind = {
  *of(scene) {
    for (const lead of looseLeads(scene)) {
      const share = shareOfReach(scene, lead)
      if (share > NEAR_ITS_LIMIT)
        yield {
          part: leadPart(lead),
          odds: share > 1 ? 2.5 : 0.8,
          source: commonPractice('leads near their limit drop first'),
        }
    }
  },
  shows: {
    'not detected': 0.2,
    'usb2 only': 0.35,
    'slow copy': 0.15,
    drops: 0.35,
    'alone only': 0.15,
    'listed but black': 0.35,
    'fewer modes': 0.2,
    'low refresh': 0.12,
    'frames lost': 0.25,
  },
  words: (part) => `The lead ${part} is too long for its rate.`,
  followUp: 'shorter or better lead',
}
