import type { Finding } from './finding'
import { roomFinding } from './room'
import type { Check, Situation } from './situation'

/** Each picture fits the link it comes up at, as it is or compressed where both ends can; if not, the best that do. */
export const pictureCheck: Check = {
  name: 'picture',
  *findings(situation: Situation): Iterable<Finding> {
    if (situation.laid.leads.length === 0) return
    for (const admission of situation.admissions) {
      if (admission.need.kind === 'picture') yield roomFinding('picture', situation, admission)
    }
  },
}
