import { leadCable, type SiteIndex } from '../plan/site-index'
import { conduitFill, fillSource, plugPasses, plugSource, sectionFill, tightestBend } from '../route/conduit'
import { commonPractice } from '../standards/source'
import { pathwaysOf, type Run } from '../vocabulary/run'
import type { Surrounding } from '../vocabulary/surroundings'
import type { Caution, Finding } from './finding'
import { type Check, leadPart, runPart, type Situation } from './situation'

const source = commonPractice('what to ask and take care of along a route; local code and licensed people decide')

const cautions: Record<Surrounding, Caution | null> = {
  wall: 'local-code',
  ceiling: 'local-code',
  plenum: 'local-code',
  riser: 'local-code',
  conduit: 'local-code',
  mains: 'local-code',
  motors: null,
  outdoors: 'local-code',
  'other-earth': 'earths',
  'at-height': 'height',
  'play-area': 'trip',
  'open-floor': 'trip',
}

/** A bend no tighter than the lead allows, and a conduit that its plugs pass and that is not too full. */
function* physicalFit(situation: Situation): Iterable<Finding> {
  const bare = { check: 'surroundings', have: null, need: null, unit: null } as const
  const { laid } = situation
  const { bend } = laid.run.route
  for (const lead of laid.leads) {
    const { thickness, construction } = lead.cable
    if (bend === undefined || thickness === undefined || construction === 'optical') continue
    const allowed = tightestBend(thickness)
    if (bend >= allowed) continue
    const reason = { code: 'bend', bend, allowed } as const
    const remedies = [{ code: 'gentler-bend', allowed } as const]
    yield { ...bare, grade: 'blocked', part: leadPart(lead), reason, remedies, source: plugSource }
  }
  for (const { conduit, way, others } of conduitsOf(situation)) yield* conduitFindings(laid, conduit, way, others)
  yield* freeSections(situation)
}

type Conduit = NonNullable<Situation['laid']['run']['route']['conduit']>
type InConduit = { conduit: Conduit; way: string | null; others: readonly number[] }

/** The conduits that a run goes through: its own, and those among the pathways it follows with what other runs have in them. */
function* conduitsOf({ index, laid }: Situation): Iterable<InConduit> {
  const { run } = laid
  if (run.route.conduit) yield { conduit: run.route.conduit, way: null, others: [] }
  for (const id of pathwaysOf(run)) {
    const pathway = index.pathways.get(id)
    if (pathway?.inner === undefined) continue
    const { inner, beside, name } = pathway
    yield { conduit: { inner, beside }, way: name, others: othersIn(index, id, run) }
  }
}

/** What a verdict on a run follows from in the pathways it takes, whatever lead lies in it. */
export const conditionsAlong = (index: SiteIndex, run: Run): unknown[] =>
  [...pathwaysOf(run)].map((id) => {
    const { through, inner, free, beside } = index.pathways.get(id) ?? {}
    return [through, inner, free, beside, othersIn(index, id, run)]
  })

/** The diameters of the leads that other runs have in a pathway, as far as they are known. */
const othersIn = (index: SiteIndex, pathway: string, own: Run): number[] =>
  (index.runsAlong.get(pathway) ?? []).flatMap((run) =>
    run.id === own.id ? [] : run.leads.flatMap((lead) => leadCable(index, lead).thickness ?? []),
  )

function* conduitFindings(
  laid: Situation['laid'],
  { inner, beside }: Conduit,
  way: string | null,
  others: readonly number[],
): Iterable<Finding> {
  const bare = { check: 'surroundings', have: null, need: null, unit: null } as const
  const moulded = laid.leads.find(({ cable }) => cable.ends.every((end) => end.connector === 'type-c'))
  if (moulded && !plugPasses(inner / 1000)) {
    const reason = { code: 'plug-in-conduit', inner, way } as const
    const remedies = [{ code: 'wider-conduit' } as const]
    yield { ...bare, grade: 'blocked', part: leadPart(moulded), reason, remedies, source: plugSource }
  }
  const own = laid.leads.flatMap(({ cable }) => cable.thickness ?? [])
  if (own.length === 0) return
  const cables = [...own, ...beside, ...others]
  const { share, limit, allowed } = conduitFill(inner, cables)
  yield {
    ...bare,
    grade: allowed ? 'note' : 'blocked',
    part: runPart(laid.run),
    reason: { code: 'conduit-fill', share, limit, cables: cables.length, way },
    remedies: allowed ? [] : [{ code: 'wider-conduit' }],
    source: fillSource,
    caution: 'local-code',
  }
}

/** Trays and trunking take what is free in them. */
function* freeSections({ index, laid }: Situation): Iterable<Finding> {
  const own = laid.leads.flatMap(({ cable }) => cable.thickness ?? [])
  if (own.length === 0) return
  for (const id of pathwaysOf(laid.run)) {
    const pathway = index.pathways.get(id)
    if (pathway?.free === undefined) continue
    const cables = [...own, ...pathway.beside, ...othersIn(index, id, laid.run)]
    const { share, allowed } = sectionFill(pathway.free, cables)
    if (allowed) continue
    yield {
      check: 'surroundings',
      have: null,
      need: null,
      unit: null,
      grade: 'blocked',
      part: runPart(laid.run),
      reason: {
        code: 'free-section',
        taken: share * pathway.free,
        free: pathway.free,
        cables: cables.length,
        way: pathway.name,
      },
      remedies: [{ code: 'wider-conduit' }],
      source,
    }
  }
}

/** What a run passes: what is said of its own route, and of the pathways it follows. */
const passedBy = ({ index, laid }: Situation): ReadonlySet<Surrounding> =>
  new Set([
    ...(laid.run.route.through ?? []),
    ...[...pathwaysOf(laid.run)].flatMap((id) => index.pathways.get(id)?.through ?? []),
  ])

/** What the route passes, as things to ask and to take care of; Hallway never declares a route compliant. Copper between different earths is blocked. */
export const surroundingsCheck: Check = {
  name: 'surroundings',
  *findings(situation: Situation): Iterable<Finding> {
    const { laid } = situation
    yield* physicalFit(situation)
    const bare = { check: 'surroundings', part: runPart(laid.run), have: null, need: null, unit: null, source } as const
    const copper = laid.leads.find((lead) => lead.cable.construction !== 'optical' || lead.known.amps.value > 0)
    for (const what of passedBy(situation)) {
      const caution = cautions[what]
      const earths = what === 'other-earth' && copper !== undefined
      yield {
        ...bare,
        grade: earths ? 'blocked' : 'note',
        reason: { code: 'passes', what, copper: earths },
        remedies: earths ? [{ code: 'optical-only' }] : [],
        ...(caution ? { caution } : {}),
      }
    }
    if (laid.leads.some((lead) => lead.cable.construction === 'optical')) {
      yield { ...bare, grade: 'note', reason: { code: 'optical' }, remedies: [], caution: 'optical-end' }
    }
  },
}
