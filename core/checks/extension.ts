import { z } from 'zod'
import { proofOf } from '../link/chain'
import { longestOf } from '../observe/ledger'
import { isHold } from '../observe/links'
import { SHORTEST_SOAK_SECONDS } from '../standards/soak'
import { commonPractice } from '../standards/source'
import { check, reason } from './check'
import { leadPart } from './situation'

/** Type-C extensions are outside the standard: never, or only where this very chain has passed a soak, as the site's policy says. */
export const extensionCheck = check({
  name: 'extension',
  reasons: {
    'type-c-extension': reason({ soaked: z.boolean(), allowed: z.boolean() }, ({ soaked, allowed }, { label }) =>
      allowed && soaked
        ? `${label} is a type-C extension, outside the standard. These very leads have passed a soak, and this site accepts that.`
        : `${label} is a type-C extension, outside the standard. ${allowed ? 'This site accepts one only after these very leads have passed a soak of 60 s or more.' : 'This site never uses one.'}`,
    ),
  },
  remedies: ['test-it', 'other-lead'],
  reads: [],
  source: commonPractice('USB Type-C knows no extension; some use them and test them'),
  *find({ laid, policy }) {
    const soaked = laid.seen.links.some(
      (series) =>
        isHold(series) &&
        !series.copied &&
        longestOf(series) >= SHORTEST_SOAK_SECONDS &&
        proofOf(laid, series.tried).here?.came === 'held',
    )
    const allowed = policy.extensions === 'soaked'
    for (const lead of laid.leads) {
      if (lead.shape !== 'c-extension') continue
      yield {
        grade: allowed && soaked ? 'note' : 'blocked',
        part: leadPart(lead),
        reason: { code: 'type-c-extension', soaked, allowed },
        remedies: allowed && soaked ? [] : [{ code: allowed ? 'test-it' : 'other-lead' }],
      }
    }
  },
})
