import type { Need } from '../vocabulary/need'
import { laidCables, type Run } from '../vocabulary/run'
import { madeFrom } from '../work/kept'
import { byId } from './lookup'
import type { Plan } from './plan'
import { put } from './put'

/**
 * Needs that flow straight between the two devices of a run, either way: the run's own form edits these. Of several runs between the same devices, a pinned
 * need belongs to its own. Any other belongs to the run that comes first in the list.
 */
export function directNeeds(plan: Plan, run: Run): Need[] {
  const first = (plan.runs.find((other) => joinsSame(other, run)) ?? run).id === run.id
  const ends = new Set([run.from.device, run.to.device])
  return plan.needs.filter(
    (need) => ends.has(need.from) && ends.has(need.to) && (need.through ? need.through[0] === run.id : first),
  )
}

/** True where two runs join the same two devices. */
export const joinsSame = (one: Run, other: Run): boolean =>
  (one.from.device === other.from.device && one.to.device === other.to.device) ||
  (one.from.device === other.to.device && one.to.device === other.from.device)

/**
 * The plan with this run and its direct needs in place of what it had, each where it stood, as who is served first follows from that; a run or a need it
 * does not know is added at the end, as saving it would.
 */
export function withRun(plan: Plan, run: Run, needs: readonly Need[]): Plan {
  const before = plan.runs.find((other) => other.id === run.id)
  const old = new Map((before ? directNeeds(plan, before) : []).map((need) => [need.id, need]))
  const now = new Map(needs.map((need) => [need.id, need]))
  const kept = plan.needs.flatMap((need) => (old.has(need.id) ? (now.get(need.id) ?? []) : need))
  const added = needs.filter(({ id }) => !old.has(id))
  const all = madeFrom<Need, readonly Need[]>(plan.needs, [...kept, ...added], {
    replaced: [...old.values()].flatMap((was): [Need, Need][] => {
      const is = now.get(was.id)
      return is ? [[was, is]] : []
    }),
    added,
    removed: [...old.values()].filter(({ id }) => !now.has(id)),
    reordered: false,
  })
  return { ...put(plan, 'runs', run), needs: all as Need[] }
}

/** "R-08" after "R-07": the next tag nobody has. */
export function nextRunTag(plan: Plan): string {
  const taken = plan.runs.flatMap((run) => /^R-(\d+)$/i.exec(run.tag)?.[1] ?? [])
  return `R-${String(Math.max(0, ...taken.map(Number)) + 1).padStart(2, '0')}`
}

/** True where every port and cable a run names is there and its two ports differ: enough to judge it. Saving it asks more. */
export function canBeJudged(plan: Plan, run: Run): boolean {
  const ends = [run.from, run.to].map(({ device, port }) =>
    plan.devices.find((each) => each.id === device)?.ports.find((each) => each.id === port),
  )
  const kinds = run.leads.flatMap((lead) => ('kind' in lead ? lead.kind : []))
  return (
    ends.every(Boolean) &&
    ends[0] !== ends[1] &&
    laidCables(run).every((id) => byId(plan.cables).has(id)) &&
    kinds.every((id) => byId(plan.kinds).has(id))
  )
}
