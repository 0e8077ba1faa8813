import { leadPart } from '../../checks/situation'
import { commonPractice } from '../../standards/source'
import type { CauseKind } from '../cause'
import { looseLeads } from '../scene'

/** A lead that works one way only, and lies the other way round. */
export const turnedLead: CauseKind = {
  *of(scene) {
    for (const lead of looseLeads(scene))
      if (lead.cable.oneWay)
        yield { part: leadPart(lead), odds: 0.5, source: commonPractice('one-way leads are laid wrong way round') }
  },
  shows: { 'not detected': 0.7, 'listed but black': 0.1, 'charges only': 0.3 },
  words: (part) => `The lead ${part} works one way only, and lies the wrong way round.`,
  followUp: 'turn it round',
}
