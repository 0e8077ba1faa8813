import type { Asks } from '../observe/came'
import { SHORTEST_SOAK_SECONDS } from '../standards/soak'
import { type Policy, reliedOf, soakSeconds } from '../vocabulary/policy'

/** What a site asks of a look by its rules. */
export const asksOf = (policy: Pick<Policy, 'reliedFrom' | 'soak'>): Asks => ({
  least: SHORTEST_SOAK_SECONDS,
  relied: reliedOf(policy),
  soak: soakSeconds[policy.soak],
})
