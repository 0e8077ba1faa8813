import type { Spot } from '../plan/floor'
import type { Place } from '../plan/plan'
import type { Run } from '../plan/run'
import { leadCable, type SiteIndex } from '../plan/site-index'
import type { Metres } from '../quantity/length'
import { pointOf } from '../route/follow'

/** A head stands so high (common practice). */
export const HEAD_HEIGHT: Metres = 1.7

/** How far a headset's lead reaches in its play area: a circle about the port it hangs on, and what each corner is short of. */
export type AreaReach = { run: Run; port: Spot; radius: Metres; corners: { x: number; y: number; short: Metres }[] }

/**
 * For each headset lead that ends at a place with a play area: where a head can go. The lead takes the way down or up to head height and then goes along
 * the floor, with the slack of the site, as `leadForArea` reckons.
 */
export function areaReach(index: SiteIndex, place: Place): AreaReach[] {
  const { area, at } = place
  if (!area || !at) return []
  return index.plan.devices.flatMap((device) => {
    if (device.kind !== 'headset' || device.place !== place.id) return []
    return (index.runsAt.get(device.id) ?? []).flatMap((run) => {
      const far = run.from.device === device.id ? run.to.device : run.from.device
      const port = pointOf(index.plan, far)
      if (!port || port.floor !== at.floor || run.leads.length === 0) return []
      const lead = run.leads.reduce((sum, each) => sum + leadCable(index, each).length, 0)
      const radius = Math.max(0, lead / (1 + index.plan.policy.slack) - Math.abs(HEAD_HEIGHT - port.height))
      const corners = [-1, 1].flatMap((right) =>
        [-1, 1].map((down) => {
          const x = at.x + (right * area.width) / 2
          const y = at.y + (down * area.depth) / 2
          return { x, y, short: Math.max(0, Math.hypot(x - port.x, y - port.y) - radius) }
        }),
      )
      return { run, port, radius, corners }
    })
  })
}
