import { published } from '../standards/source'
import type { Finding } from './finding'
import { type Check, runPart, type Situation } from './situation'

/** At most five hubs in series; an active USB extension counts as one (common practice). */
export const MOST_HUBS = 5
const source = published('USB 2.0 §4.1.1')

/** No more hubs, docks and active extensions in a row than USB allows, told on the run that ends the way. */
export const hubDepthCheck: Check = {
  name: 'hub depth',
  *findings({ laid, crossings }: Situation): Iterable<Finding> {
    for (const { need, lastMile, hubs } of crossings) {
      if (!lastMile || hubs === undefined || hubs < MOST_HUBS || need.kind === 'picture' || need.kind === 'power')
        continue
      yield {
        check: 'hub depth',
        grade: hubs > MOST_HUBS ? 'blocked' : 'tight',
        part: runPart(laid.run),
        needId: need.id,
        have: null,
        need: null,
        unit: null,
        reason: { code: 'hubs', hubs, most: MOST_HUBS },
        remedies: [{ code: 'fewer-hubs' }],
        source,
      }
    }
  },
}
