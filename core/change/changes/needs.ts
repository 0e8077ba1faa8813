import { byId } from '../../plan/lookup'
import type { Plan } from '../../plan/plan'
import { type Need, needLabel } from '../../vocabulary/need'
import type { ChangeToMake, Edit, LogPosition } from '../change'
import { changedWhat } from '../differences'

const called = (plan: Plan, needs: readonly Need[]): string[] => {
  const devices = new Map(plan.devices.map((device) => [device.id, device]))
  return needs.map((need) => needLabel(need, devices))
}

/** States new needs, at the end of the list. */
export const stateNeeds = (plan: Plan, needs: readonly Need[]): ChangeToMake => ({
  what: { name: 'state needs', about: called(plan, needs) },
  edits: needs.map((value): Edit => ({ list: 'needs', id: value.id, base: null, value })),
})

/** Saves a need as a form made it from the site at place `base`. */
export const changeNeed = (base: LogPosition, need: Need): ChangeToMake => ({
  what: changedWhat('change need', 'needs', need.id),
  edits: [{ list: 'needs', id: need.id, base, value: need }],
})

/** Saves a need with runs of its way as somebody tried them, each an edit of its own. */
export function keepTriedRuns(plan: Plan, base: LogPosition, need: Need, runs: readonly Edit[]): ChangeToMake {
  const { edits, what } = changeNeed(base, need)
  const tags = runs.map(({ id }) => byId(plan.runs).get(id)?.tag ?? id)
  const [label = ''] = called(plan, [need])
  return runs.length === 0
    ? { edits, what }
    : { edits: [...edits, ...runs], what: { name: 'keep trial', about: [tags.join(', '), `the path of the ${label}`] } }
}

/** Takes a need away. */
export const dropNeed = (plan: Plan, base: LogPosition, need: Need): ChangeToMake => ({
  what: { name: 'drop need', about: called(plan, [need]) },
  edits: [{ list: 'needs', id: need.id, base, value: null }],
})

/** Says in which order needs are served: the first of them first. Needs that stand so already are left alone. */
export function orderNeeds(plan: Plan, base: LogPosition, needs: readonly Need[]): ChangeToMake {
  const edits = needs.flatMap((need, at): Edit[] => {
    const priority = Math.min(LAST_PRIORITY, at + 1)
    return need.priority === priority ? [] : [{ list: 'needs', id: need.id, base, value: { ...need, priority } }]
  })
  return { what: { name: 'order needs', about: called(plan, needs) }, edits }
}
const LAST_PRIORITY = 9
