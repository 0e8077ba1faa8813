import { leadPart } from '../../checks/situation'
import type { CauseKind } from '../cause'
import { lyingOdds } from '../lead-odds'
import { looseLeads } from '../scene'

/** A lead that does less than its mark or listing says: a charging lead, fewer pairs, 3 A where 5 A is printed. One that was measured in this very job does what it did. */
export const lesserLead: CauseKind = {
  *of(scene) {
    for (const lead of looseLeads(scene)) yield { part: leadPart(lead), ...lyingOdds(scene, lead) }
  },
  shows: {
    'not detected': 0.15,
    'charges only': 0.4,
    'usb2 only': 0.5,
    'slow copy': 0.4,
    'listed but black': 0.25,
    'fewer modes': 0.35,
    'low refresh': 0.25,
    'charges slowly': 0.35,
    'headset drains': 0.3,
    refused: 0.15,
    'reduced function': 0.3,
    'nothing new appears': 0.05,
  },
  words: (part) => `The lead ${part} carries less than its mark or listing says.`,
  followUp: 'replace lead',
}
