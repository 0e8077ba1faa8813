import type { Surrounding } from '../plan/run'
import { conduitFill, fillSource, plugPasses, plugSource, tightestBend } from '../route/conduit'
import { commonPractice } from '../standards/source'
import type { Caution, Finding } from './finding'
import { type Check, leadPart, runPart, type Situation } from './situation'

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

/** A bend no tighter than the lead allows, and a conduit that its plugs pass and that is not too full. */
function* physicalFit({ laid }: Situation): Iterable<Finding> {
  const bare = { check: 'surroundings', have: null, need: null, unit: null } as const
  const { bend, conduit } = laid.run.route
  for (const lead of laid.leads) {
    const { thickness, construction } = lead.cable
    if (bend === undefined || thickness === undefined || construction === 'optical') continue
    const allowed = tightestBend(thickness)
    if (bend >= allowed) continue
    const reason = { code: 'bend', bend, allowed } as const
    const remedies = [{ code: 'gentler-bend', allowed } as const]
    yield { ...bare, grade: 'blocked', part: leadPart(lead), reason, remedies, source: plugSource }
  }
  if (!conduit) return
  const { inner, beside } = conduit
  const moulded = laid.leads.find(({ cable }) => cable.ends.every((end) => end.connector === 'type-c'))
  if (moulded && !plugPasses(inner / 1000)) {
    const reason = { code: 'plug-in-conduit', inner } as const
    yield {
      ...bare,
      grade: 'blocked',
      part: leadPart(moulded),
      reason,
      remedies: [{ code: 'wider-conduit' }],
      source: plugSource,
    }
  }
  const own = laid.leads.flatMap(({ cable }) => cable.thickness ?? [])
  const cables = [...own, ...beside]
  if (own.length === 0) return
  const { share, limit, allowed } = conduitFill(inner, cables)
  yield {
    ...bare,
    grade: allowed ? 'note' : 'blocked',
    part: runPart(laid.run),
    reason: { code: 'conduit-fill', share, limit, cables: cables.length },
    remedies: allowed ? [] : [{ code: 'wider-conduit' }],
    source: fillSource,
    caution: 'local-code',
  }
}

/** What the route passes, as things to ask and to take care of; Hallway never declares a route compliant. Copper between different earths is blocked. */
export const surroundingsCheck: Check = {
  name: 'surroundings',
  *findings(situation: Situation): Iterable<Finding> {
    const { laid } = situation
    yield* physicalFit(situation)
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
