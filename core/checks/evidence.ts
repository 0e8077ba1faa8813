import { chainLack } from '../link/chain'
import { trialOf } from '../observe/trials'
import { craft, type Finding } from './finding'
import { type Check, leadPart, type Situation } from './situation'

/** Says where evidence on a lead disagrees, and shows a bench pass beyond the book beside the book's verdict. */
export const evidenceCheck: Check = {
  name: 'evidence',
  *findings({ laid, data, policy }: Situation): Iterable<Finding> {
    const bare = { check: 'evidence', grade: 'note', have: null, need: null, unit: null, source: craft } as const
    for (const lead of laid.leads) {
      for (const conflict of lead.known.conflicts) {
        yield { ...bare, part: leadPart(lead), reason: { code: 'conflict', conflict }, remedies: [{ code: 'test-it' }] }
      }
      if (data.shared === null) continue
      const beyondBook =
        chainLack(
          [lead],
          data.shared,
          ({ reach }) => reach.data,
          () => false,
        ) !== null
      const verdict = trialOf(lead.known.trials, data.shared, laid.from.port.controller)
      if (beyondBook && verdict?.passed) {
        const reason = {
          code: 'bench-pass',
          mode: data.shared,
          counts: policy.length === 'bench',
          at: verdict.trial.at,
        } as const
        yield { ...bare, part: leadPart(lead), reason, remedies: [] }
      }
    }
  },
}
