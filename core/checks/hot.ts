import { commonPractice } from '../standards/source'
import type { Finding } from './finding'
import { type Check, leadPart, runPart, type Situation } from './situation'

const source = commonPractice('a lead that got hot is used for nothing')

/** A lead whose plug got hot is used for nothing until somebody takes that back, and says why. */
export const hotCheck: Check = {
  name: 'hot',
  *findings({ laid }: Situation): Iterable<Finding> {
    const bare = {
      check: 'hot',
      grade: 'blocked',
      have: null,
      need: null,
      unit: null,
      source,
      caution: 'hot',
    } as const
    const hot = laid.leads.filter(({ known }) => known.hot !== null)
    for (const lead of hot)
      yield {
        ...bare,
        part: leadPart(lead),
        reason: {
          code: 'ran-hot',
          at: lead.known.hot?.at ?? '',
          strangeSupply: lead.known.hot?.strangeSupply ?? false,
        },
        remedies: [{ code: 'other-lead' }],
      }
    if (laid.seen.hot && hot.length === 0)
      yield {
        ...bare,
        part: runPart(laid.run),
        reason: { code: 'ran-hot', at: laid.seen.hot.at, strangeSupply: laid.seen.hot.strangeSupply },
        remedies: [{ code: 'other-lead' }],
      }
  },
}
