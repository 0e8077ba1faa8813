import { z } from 'zod'
import { carries } from '../link/chain'
import { NOTHING_LEARNT } from '../observe/learnt'
import { bestMode, LINK_MODES, linkModeFacts } from '../standards/link-modes'
import { commonPractice } from '../standards/source'
import { check, reason } from './check'
import { leadPart } from './situation'

/** Where a lead could do more than the ports: what a dearer one could not add, because another part is the limit. */
export const valueCheck = check({
  name: 'value',
  reasons: {
    'more-than-needed': reason(
      { mode: z.string() },
      ({ mode }, { label }) =>
        `${label} could carry more than these ports use (${mode}). A dearer one adds nothing here.`,
    ),
  },
  remedies: [],
  reads: [],
  source: commonPractice('the dearest cable is often not needed'),
  *find({ laid, data, policy }) {
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
        grade: 'note',
        part: leadPart(lead),
        measured: { have: linkModeFacts[own].line, need: line, unit: 'bit/s' },
        reason: { code: 'more-than-needed', mode: name },
      }
    }
  },
})
