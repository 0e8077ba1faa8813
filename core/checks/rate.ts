import type { Finding } from './finding'
import { roomFinding } from './room'
import type { Check, Situation } from './situation'

/** Each stream, file and data link finds room for its rate, after what the needs before it have taken. */
export const rateCheck: Check = {
  name: 'rate',
  *findings(situation: Situation): Iterable<Finding> {
    if (situation.laid.leads.length === 0) return
    for (const admission of situation.admissions) {
      if (admission.need.kind !== 'picture') yield roomFinding('rate', situation, admission)
    }
  },
}
