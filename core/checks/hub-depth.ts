import { z } from 'zod'
import { published } from '../standards/source'
import { check, reason } from './check'
import { runPart } from './situation'

/** At most five hubs in series; an active USB extension counts as one (common practice). */
export const MOST_HUBS = 5

/** No more hubs, docks and active extensions in a row than USB allows, told on the run that ends the way. */
export const hubDepthCheck = check({
  name: 'hub depth',
  reasons: {
    hubs: reason(
      { hubs: z.number(), most: z.int() },
      ({ hubs, most }) => `${hubs} hubs, docks and active extensions lie in a row on this path; USB allows ${most}.`,
    ),
  },
  remedies: ['fewer-hubs'],
  reads: [],
  source: published('USB 2.0 §4.1.1'),
  *find({ laid, crossings }) {
    for (const { need, lastMile, hubs } of crossings) {
      if (!lastMile || hubs === undefined || hubs < MOST_HUBS || need.kind === 'picture' || need.kind === 'power')
        continue
      yield {
        grade: hubs > MOST_HUBS ? 'blocked' : 'tight',
        part: runPart(laid.run),
        needId: need.id,
        reason: { code: 'hubs', hubs, most: MOST_HUBS },
        remedies: [{ code: 'fewer-hubs' }],
      }
    }
  },
})
