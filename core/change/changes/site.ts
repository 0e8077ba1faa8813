import { PLAN_LISTS, type Plan, type Site } from '../../plan/plan'
import type { Policy } from '../../vocabulary/policy'
import type { Change, ChangeToMake, Edit, LogPosition, What } from '../change'
import { POLICY_ID, SITE_ID } from '../copy'
import { same } from '../merge'

/** What each of the rules is called in a list of changes. */
export const policyNames: Record<keyof Policy, string> = {
  length: 'how far a lead reaches',
  extensions: 'type-C extensions',
  cables: 'which cables',
  computerDisplays: 'HDMI to a computer display',
  reservation: 'what pictures reserve',
  addInCards: 'ports on add-in cards',
  farData: 'data past 5 m',
  buying: 'which of the leads that do the job is bought',
  soak: 'how long a soak is',
  reliedFrom: 'from when a look is relied on',
  others: 'how much the tries of others count',
  proveIn: 'where a run is proved',
  searching: 'how a fault is searched',
  drivers: 'where drivers are taken from',
  equipment: 'what equipment costs',
  storageOverhead: 'what storage loses',
  slack: 'slack',
  loop: 'loops at the ends',
  headroom: 'headroom',
  currency: 'currency',
  chargeAtLeast: 'when a laptop charges',
}

/** Chooses some of what a site goes by. */
export function choosePolicy(from: Plan, base: LogPosition, choice: Partial<Policy>): ChangeToMake {
  const value: Policy = { ...from.policy, ...choice }
  return {
    what(plan, [edit]) {
      const after = (edit?.value ?? value) as Policy
      const changed = (Object.keys(policyNames) as (keyof Policy)[]).filter(
        (field) => !same(after[field], plan.policy[field]),
      )
      return { name: 'choose policy', about: changed.map((field) => policyNames[field]) }
    },
    edits: [{ list: 'policy', id: POLICY_ID, base, value }],
  }
}

/** Renames a site, puts it away or brings it back, or makes it one to practise on. */
export function changeSite(from: Plan, base: LogPosition, choice: Partial<Omit<Site, 'id'>>): ChangeToMake {
  const value: Site = { ...from.site, ...choice }
  return { what: whatOfSite(from.site, value), edits: [{ list: 'site', id: SITE_ID, base, value }] }
}

function whatOfSite(before: Site, after: Site): What {
  if (after.putAway !== before.putAway)
    return { name: after.putAway ? 'put site away' : 'bring site back', about: [after.name] }
  if (after.practice !== before.practice)
    return { name: after.practice ? 'make practice site' : 'make real site', about: [after.name] }
  return { name: 'rename site', about: [after.name, before.name] }
}

/** All of a plan as the first change of a new site. */
export function bringInSite(plan: Plan): Pick<Change, 'what' | 'edits'> {
  const edits: Edit[] = PLAN_LISTS.flatMap((list) =>
    plan[list].map((value): Edit => ({ list, id: value.id, base: null, value: value as never })),
  )
  return { what: { name: 'bring in site', about: [plan.site.name] }, edits }
}
