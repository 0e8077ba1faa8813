import { knownOf } from '../link/lay'
import { spotsSeen } from '../observe/known'
import type { SiteIndex } from '../plan/site-index'
import type { Cable } from '../vocabulary/cable'

/** The cables of which something was seen in each socket; whether anything was seen with a setup noted, or with all else unplugged. */
export type Spots = { byPort: ReadonlyMap<string, readonly string[]>; setup: boolean; alone: boolean }

/** Where something was seen of some cables. */
export function spotsOf(index: SiteIndex, cables: readonly Cable[]): Spots {
  const byPort = new Map<string, string[]>()
  let [setup, alone] = [false, false]
  const note = (port: string | undefined, id: string): void => {
    if (port === undefined) return
    const list = byPort.get(port)
    if (list) list.push(id)
    else byPort.set(port, [id])
  }
  for (const cable of cables) {
    for (const spot of spotsSeen(knownOf(index, cable))) {
      note(spot.port, cable.id)
      note(spot.far, cable.id)
      setup ||= spot.setup !== undefined || spot.farSetup !== undefined
      alone ||= spot.alone === true
    }
  }
  return { byPort, setup, alone }
}
