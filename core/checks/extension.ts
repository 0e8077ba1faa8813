import { SHORTEST_SOAK_SECONDS } from '../standards/soak'
import { commonPractice } from '../standards/source'
import type { Finding } from './finding'
import { type Check, leadPart, type Situation } from './situation'

const source = commonPractice('USB Type-C knows no extension; some use them and test them')

/** Type-C extensions are outside the standard: never, or only where this very chain has passed a soak, as the site's policy says. */
export const extensionCheck: Check = {
  name: 'extension',
  *findings({ laid, policy }: Situation): Iterable<Finding> {
    const soaked = laid.seen.trials.some(
      (proof) =>
        proof.basis === 'soaked' && proof.cameUp === proof.tried && (proof.seconds ?? 0) >= SHORTEST_SOAK_SECONDS,
    )
    for (const lead of laid.leads) {
      if (lead.shape !== 'c-extension') continue
      const allowed = policy.extensions === 'soaked'
      yield {
        check: 'extension',
        grade: allowed && soaked ? 'note' : 'blocked',
        part: leadPart(lead),
        have: null,
        need: null,
        unit: null,
        reason: { code: 'type-c-extension', soaked, allowed },
        remedies: allowed && soaked ? [] : [allowed ? { code: 'test-it' } : { code: 'other-lead' }],
        source,
      }
    }
  },
}
