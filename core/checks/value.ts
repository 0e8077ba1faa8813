import { carries } from '../link/chain'
import { NOTHING_LEARNT } from '../observe/learnt'
import { bestMode, LINK_MODES, linkModeFacts } from '../standards/link-modes'
import { commonPractice } from '../standards/source'
import type { Finding } from './finding'
import { type Check, leadPart, type Situation } from './situation'

const source = commonPractice('the dearest cable is often not needed')

/** Where a lead could do more than the ports: what a dearer one could not add, because another part is the limit. */
export const valueCheck: Check = {
  name: 'value',
  *findings({ laid, data, policy }: Situation): Iterable<Finding> {
    if (data.mode === null || data.mode !== data.shared) return
    const { line, name } = linkModeFacts[data.mode]
    for (const lead of laid.leads) {
      const own = bestMode(
        LINK_MODES.filter(
          (mode) => carries({ leads: [lead], seen: NOTHING_LEARNT, here: laid.here }, mode, policy).lack === null,
        ),
      )
      if (own === null || linkModeFacts[own].line <= line) continue
      yield {
        check: 'value',
        grade: 'note',
        part: leadPart(lead),
        have: linkModeFacts[own].line,
        need: line,
        unit: 'bit/s',
        reason: { code: 'more-than-needed', mode: name },
        remedies: [],
        source,
      }
    }
  },
}
