import type { Policy } from '../vocabulary/policy'
import type { InSlices } from '../work/in-slices'
import { type Assessed, assessInSlices } from './assess'
import { type Turned, turnedBetween } from './turned'

/** What some other choice of what a site goes by would change: the runs whose verdict turns. */
export type PolicyEffect = { choice: Partial<Policy>; turned: readonly Turned[] }

/** What each of several choices would change here, before any is made: the whole site judged by each, a step at a time. */
export function* policyEffects(
  site: Assessed,
  choices: readonly Partial<Policy>[],
  tell: (done: number) => void = () => {},
): InSlices<PolicyEffect[]> {
  const { plan } = site.index
  const effects: PolicyEffect[] = []
  for (const [at, choice] of choices.entries()) {
    tell(at)
    const { assessment } = yield* assessInSlices({ ...plan, policy: { ...plan.policy, ...choice } })
    const turned = turnedBetween(site.assessment, { ...assessment, needs: site.assessment.needs }, site.index)
    effects.push({ choice, turned })
  }
  return effects
}
