import { leadPart } from '../../checks/situation'
import type { CauseKind } from '../cause'
import { failingOdds } from '../lead-odds'
import { looseLeads } from '../scene'

/** A lead that is worn or broken inside. How often one of its kind failed on this site says how likely it is; where nobody tried any, the lead is the part that lies most. */
export const wornLead: CauseKind = {
  *of(scene) {
    for (const lead of looseLeads(scene)) yield { part: leadPart(lead), ...failingOdds(scene, lead, 1) }
  },
  shows: {
    'not detected': 0.35,
    'charges only': 0.15,
    'usb2 only': 0.25,
    'slow copy': 0.1,
    drops: 0.4,
    'alone only': 0.1,
    'listed but black': 0.2,
    'fewer modes': 0.1,
    'frames lost': 0.2,
    'charges slowly': 0.1,
    'headset drains': 0.1,
    'no power': 0.12,
    hot: 0.1,
  },
  words: (part) => `The lead ${part} is worn or broken inside.`,
  followUp: 'replace lead',
}
