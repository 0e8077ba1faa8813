import { leadPart } from '../../checks/situation'
import { commonPractice } from '../../standards/source'
import type { CauseKind } from '../cause'
import { isAdapter } from '../lead-odds'
import { looseLeads } from '../scene'

/** A lead with different ends hides an adapter, with limits of its own. */
export const adapterLimit: CauseKind = {
  *of(scene) {
    for (const lead of looseLeads(scene))
      if (isAdapter(lead.cable.ends))
        yield { part: leadPart(lead), odds: 0.6, source: commonPractice('adapters vary in modes and quality') }
  },
  shows: {
    'listed but black': 0.25,
    'fewer modes': 0.5,
    'low refresh': 0.5,
    blurred: 0.4,
    'reduced function': 0.2,
    'usb2 only': 0.1,
  },
  words: (part) => `The adapter in ${part} does not do the mode.`,
  followUp: 'replace lead',
}
