import { leadPart } from '../../checks/situation'
import { commonPractice } from '../../standards/source'
import type { CauseKind } from '../cause'
import { looseLeads } from '../scene'

/** A plug or lead that is shorted or has a bad contact, and gets hot. */
export const shortCircuit: CauseKind = {
  *of(scene) {
    for (const lead of looseLeads(scene))
      yield { part: leadPart(lead), odds: 0.06, source: commonPractice('leads that got hot') }
  },
  shows: {
    hot: 0.85,
    smoke: 0.6,
    'too much current': 0.6,
    'no power': 0.3,
    'not detected': 0.25,
    'charges slowly': 0.1,
  },
  words: (part) => `The lead ${part} or its plug has a bad contact or a short.`,
  followUp: 'replace lead',
}
