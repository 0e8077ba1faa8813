import { captiveLength } from '../link/captive'
import type { Place } from '../plan/plan'
import { devicesByPlace, leadCable, type SiteIndex } from '../plan/site-index'
import type { Metres } from '../quantity/length'
import { atMost } from '../quantity/limit'
import { pointOf } from '../route/follow'
import { routeFor } from '../route/legs'
import type { Point } from '../route/network'
import type { Device } from '../vocabulary/device'
import type { Run } from '../vocabulary/run'

/** A head stands so high (common practice). */
export const HEAD_HEIGHT: Metres = 1.7

/** How far a headset's lead reaches in its play area: a circle about the port it hangs on, and what each corner is short of. */
export type AreaReach = { run: Run; port: Point; radius: Metres; corners: { x: number; y: number; short: Metres }[] }

/**
 * Where a head can go on a run that ends at a headset in a play area; null where there is none, or its port is not on that floor. The lead goes down or up to
 * head height and then along the floor. Slack and loops are those of any route of the site.
 */
export function reachOf(index: SiteIndex, headset: Device, run: Run): AreaReach | null {
  const place = headset.kind === 'headset' ? index.places.get(headset.place ?? '') : undefined
  const { area, at } = place ?? {}
  const port = area && at && pointOf(index.plan, run.from.device === headset.id ? run.to.device : run.from.device)
  if (!port || port.floor !== at.floor || (run.leads.length === 0 && captiveLength(index, run) === 0)) return null
  const lead = run.leads.reduce((sum, each) => sum + leadCable(index, each).length, captiveLength(index, run))
  const radius = Math.max(0, routeFor(lead, index.plan.policy) - Math.abs(HEAD_HEIGHT - port.height))
  const corners = [-1, 1].flatMap((right) =>
    [-1, 1].map((down) => {
      const x = at.x + (right * area.width) / 2
      const y = at.y + (down * area.depth) / 2
      const away = Math.hypot(x - port.x, y - port.y)
      return { x, y, short: atMost(away, radius) ? 0 : away - radius }
    }),
  )
  return { run, port, radius, corners }
}

/** Whether a headset is worn in an area on a floor: then each centimetre of its lead counts. */
export function isWornInArea({ places }: SiteIndex, { kind, place }: Device): boolean {
  const { area, at } = (kind === 'headset' && places.get(place ?? '')) || {}
  return area !== undefined && at !== undefined
}

/** How far each headset lead that ends at a place reaches in its play area. */
export const areaReach = (index: SiteIndex, place: Place): AreaReach[] =>
  (devicesByPlace(index.plan.devices).get(place.id) ?? []).flatMap((device) =>
    (index.runsAt.get(device.id) ?? []).flatMap((run) => reachOf(index, device, run) ?? []),
  )
