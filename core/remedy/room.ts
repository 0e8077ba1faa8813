import type { Plan } from '../plan/plan'
import { cablesSuppliedWith, type SiteIndex, sharesSection } from '../plan/site-index'
import type { Device } from '../vocabulary/device'
import type { Need } from '../vocabulary/need'
import { manyBy } from '../work/index-by'

/**
 * The part of a site that a run can bear on: the devices that runs and needs join to it and who visits them, with their runs and needs. Drawer, catalogue, places and what
 * was observed are the site's own. Judging it gives the verdicts that judging the whole site gives, at a cost that does not follow the size of the site.
 */
export function roomOf(index: SiteIndex, runId: string): Plan {
  const needsAt = needsOf(index.plan.needs)
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
    for (const { from, to } of needsAt.get(at) ?? []) {
      enter(from)
      enter(to)
    }
    for (const visitor of visitorsAt.get(at) ?? []) enter(visitor.id)
  }
  const { plan } = index
  const cameWith = cablesSuppliedWith(plan.cables)
  return {
    ...plan,
    // a lead that came with a device somewhere else is told by its name
    devices: plan.devices.filter(({ id }) => devices.has(id) || cameWith.has(id)),
    runs: plan.runs.filter(({ from }) => devices.has(from.device)),
    needs: plan.needs.filter(({ from }) => devices.has(from)),
  }
}

/** Who sits now and then where a device sits. */
const visitorsOf = manyBy(({ visits }: Device) => (visits === undefined ? [] : [visits]))

/** The needs of a device. Asked for each run of a site, it is worked out once. */
const needsOf = manyBy(({ from, to }: Need) => [from, to])
