import type { Surrounding } from '../plan/run'
import { commonPractice } from '../standards/source'
import type { Caution, Finding } from './finding'
import { type Check, runPart, type Situation } from './situation'

const source = commonPractice('what to ask and take care of along a route; local code and licensed people decide')

const cautions: Record<Surrounding, Caution> = {
  wall: 'local-code',
  ceiling: 'local-code',
  riser: 'local-code',
  conduit: 'local-code',
  outdoors: 'local-code',
  'other-earth': 'earths',
  'at-height': 'height',
  'play-area': 'trip',
  'open-floor': 'trip',
}

/** What the route passes, as things to ask and to take care of; Hallway never declares a route compliant. Copper between different earths is blocked. */
export const surroundingsCheck: Check = {
  name: 'surroundings',
  *findings({ laid }: Situation): Iterable<Finding> {
    const bare = { check: 'surroundings', part: runPart(laid.run), have: null, need: null, unit: null, source } as const
    const copper = laid.leads.find((lead) => lead.cable.construction !== 'optical' || lead.known.amps.value > 0)
    for (const what of laid.run.route.through ?? []) {
      const earths = what === 'other-earth' && copper !== undefined
      yield {
        ...bare,
        grade: earths ? 'blocked' : 'note',
        reason: { code: 'passes', what, copper: earths },
        remedies: earths ? [{ code: 'optical-only' }] : [],
        caution: cautions[what],
      }
    }
    if (laid.leads.some((lead) => lead.cable.construction === 'optical')) {
      yield { ...bare, grade: 'note', reason: { code: 'optical' }, remedies: [], caution: 'optical-end' }
    }
  },
}
