import type { Plan } from '../plan/plan'
import { type SiteIndex, sharesSection } from '../plan/site-index'
import { keptWith } from '../work/kept'

/**
 * The part of a site that a run can bear on: the devices that runs and needs join to it and who visits them, with their runs and needs. Drawer, catalogue, places and what
 * was observed are the site's own. Judging it gives the verdicts that judging the whole site gives, at a cost that does not follow the size of the site.
 */
export function roomOf(index: SiteIndex, runId: string): Plan {
  const needsAt = joinedByNeeds(index.plan.needs)
  const visitorsAt = visitorsOf(index.plan.devices)
  const devices = new Set<string>()
  const waiting: string[] = []
  const enter = (id: string): void => {
    if (devices.has(id)) return
    devices.add(id)
    waiting.push(id)
  }
  const run = index.runs.get(runId)
  if (run) for (const end of [run.from, run.to]) enter(end.device)
  for (let at = waiting.pop(); at !== undefined; at = waiting.pop()) {
    for (const run of index.runsAt.get(at) ?? [])
      for (const { from, to } of [run, ...sharesSection(index, run)]) {
        enter(from.device)
        enter(to.device)
      }
    for (const other of needsAt.get(at) ?? []) enter(other)
    for (const visitor of visitorsAt.get(at) ?? []) enter(visitor)
  }
  const { plan } = index
  return {
    ...plan,
    devices: plan.devices.filter(({ id }) => devices.has(id)),
    runs: plan.runs.filter(({ from }) => devices.has(from.device)),
    needs: plan.needs.filter(({ from }) => devices.has(from)),
  }
}

/** Who sits now and then where a device sits. */
const visitorsOf = keptWith((devices: Plan['devices']): ReadonlyMap<string, readonly string[]> => {
  const at = new Map<string, string[]>()
  for (const { id, visits } of devices) if (visits !== undefined) at.set(visits, [...(at.get(visits) ?? []), id])
  return at
})

/** The devices that needs join a device to. Asked for each run of a site, it is worked out once. */
const joinedByNeeds = keptWith((needs: Plan['needs']): ReadonlyMap<string, readonly string[]> => {
  const joined = new Map<string, string[]>()
  const join = (one: string, other: string): void => {
    const list = joined.get(one)
    if (list) list.push(other)
    else joined.set(one, [other])
  }
  for (const { from, to } of needs) {
    join(from, to)
    join(to, from)
  }
  return joined
})
