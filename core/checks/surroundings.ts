import { z } from 'zod'
import { decimal } from '../quantity/parsed'
import {
  type Bundle,
  bundleInConduit,
  bundleInSection,
  bundleOf,
  fillSource,
  plugPasses,
  plugSource,
  tightestBend,
  together,
} from '../route/conduit'
import { othersIn } from '../route/fill'
import { commonPractice } from '../standards/source'
import { pathwaysOf } from '../vocabulary/run'
import { SURROUNDINGS, type Surrounding } from '../vocabulary/surroundings'
import { pathways, route, thickness } from './aspects'
import { check, type Found, reason } from './check'
import type { Caution } from './finding'
import { leadPart, runPart, type Situation } from './situation'

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

const names: Record<Surrounding, string> = {
  wall: 'goes through a wall',
  ceiling: 'goes through a ceiling',
  plenum: 'goes through a plenum, where air is moved',
  riser: 'goes through a riser',
  conduit: 'goes through a conduit; the plugs must fit through it too',
  mains: 'lies beside mains',
  motors: 'lies beside motors or other gear that disturbs it',
  outdoors: 'passes outdoors',
  'other-earth': 'joins places with different earths; this run has no copper in it',
  'at-height': 'is laid at height',
  'play-area': 'ends in a play area',
  'open-floor': 'crosses an open floor',
}

/** A conduit by the name of its pathway, where it is one. */
const conduitName = (way: string | null): string => (way === null ? 'a conduit' : `the conduit ${way}`)

const wayFigure = z.string().nullable()
const reasons = {
  passes: reason({ what: z.enum(SURROUNDINGS), copper: z.boolean() }, ({ what, copper }) =>
    copper
      ? 'The route joins places with different earths, and there is copper in this run: it can carry fault current.'
      : `The route ${names[what]}.`,
  ),
  optical: reason({}, () => 'Part of this run is optical.'),
  bend: reason(
    { bend: z.number(), allowed: z.number() },
    ({ bend, allowed }, { label }) =>
      `${label} allows no bend tighter than ${decimal(allowed, 0)} mm; the route has one of ${decimal(bend, 0)} mm.`,
  ),
  'plug-in-conduit': reason(
    { inner: z.number(), way: wayFigure },
    ({ inner, way }) => `A moulded type-C plug does not fit through ${conduitName(way)} of ${decimal(inner, 0)} mm.`,
  ),
  'conduit-fill': reason(
    { share: z.number(), limit: z.number(), cables: z.int(), way: wayFigure },
    ({ share, limit, cables, way }) =>
      `${cables} ${cables === 1 ? 'cable fills' : 'cables fill'} ${decimal(share * 100, 0)} % of ${conduitName(way)}. The usual limit is ${decimal(limit * 100, 0)} %.`,
  ),
  'free-section': reason(
    { taken: z.number(), free: z.number(), cables: z.int(), way: z.string() },
    ({ taken, free, cables, way }) =>
      `${cables} ${cables === 1 ? 'cable takes' : 'cables take'} ${decimal(taken, 0)} mm² of the ${decimal(free, 0)} mm² that are free in ${way}.`,
  ),
}
type Surround = Found<typeof reasons, 'optical-only' | 'gentler-bend' | 'wider-conduit'>

/** What the route passes, as things to ask and to take care of; Hallway never declares a route compliant. Copper between different earths is blocked. */
export const surroundingsCheck = check({
  name: 'surroundings',
  reasons,
  remedies: ['optical-only', 'gentler-bend', 'wider-conduit'],
  reads: [route, pathways, thickness],
  source: commonPractice('what to ask and take care of along a route; local code and licensed people decide'),
  *find(situation) {
    const { laid } = situation
    yield* tightBends(situation)
    for (const conduit of conduitsOf(situation)) yield* inConduit(laid, conduit)
    yield* freeSections(situation)
    const part = runPart(laid.run)
    const copper = laid.leads.some(
      ({ cable, known }) => cable.construction !== 'optical' || (cable.copper ?? known.amps.value > 0),
    )
    for (const what of passedBy(situation)) {
      const earths = what === 'other-earth' && copper
      yield {
        grade: earths ? 'blocked' : 'note',
        part,
        reason: { code: 'passes', what, copper: earths },
        remedies: earths ? [{ code: 'optical-only' }] : [],
        caution: cautions[what] ?? undefined,
      }
    }
    if (laid.leads.some((lead) => lead.cable.construction === 'optical'))
      yield { grade: 'note', part, reason: { code: 'optical' }, caution: 'optical-end' }
  },
})

/** Bends that are tighter than a lead allows. */
function* tightBends({ laid }: Situation): Iterable<Surround> {
  const { bend } = laid.run.route
  for (const lead of laid.leads) {
    const { thickness, construction } = lead.cable
    if (bend === undefined || thickness === undefined || construction === 'optical') continue
    const allowed = tightestBend(thickness)
    if (bend >= allowed) continue
    yield {
      grade: 'blocked',
      part: leadPart(lead),
      reason: { code: 'bend', bend, allowed },
      remedies: [{ code: 'gentler-bend', allowed }],
      source: plugSource,
    }
  }
}

type InConduit = {
  conduit: NonNullable<Situation['laid']['run']['route']['conduit']>
  way: string | null
  others: Bundle
}

/** The conduits that a run goes through: its own, and those among the pathways it follows with what other runs have in them. */
function* conduitsOf({ index, laid }: Situation): Iterable<InConduit> {
  const { run } = laid
  if (run.route.conduit) yield { conduit: run.route.conduit, way: null, others: bundleOf([]) }
  for (const id of pathwaysOf(run)) {
    const pathway = index.pathways.get(id)
    if (pathway?.inner === undefined) continue
    const { inner, beside, name } = pathway
    yield { conduit: { inner, beside }, way: name, others: othersIn(index, id, run) }
  }
}

/** Whether the plugs pass a conduit, and how full it is. */
function* inConduit(
  laid: Situation['laid'],
  { conduit: { inner, beside }, way, others }: InConduit,
): Iterable<Surround> {
  const moulded = laid.leads.find(({ cable }) => cable.ends.every((end) => end.connector === 'type-c'))
  if (moulded && !plugPasses(inner / 1000))
    yield {
      grade: 'blocked',
      part: leadPart(moulded),
      reason: { code: 'plug-in-conduit', inner, way },
      remedies: [{ code: 'wider-conduit' }],
      source: plugSource,
    }
  const own = thickestOf(laid)
  if (own === null) return
  const bundle = together(bundleOf([own, ...beside]), others)
  const { share, limit, allowed } = bundleInConduit(inner, bundle)
  yield {
    grade: allowed ? 'note' : 'blocked',
    part: runPart(laid.run),
    reason: { code: 'conduit-fill', share, limit, cables: bundle.cables, way },
    remedies: allowed ? [] : [{ code: 'wider-conduit' }],
    source: fillSource,
    caution: 'local-code',
  }
}

/** Leads of one run lie one behind the other, so the thickest counts; null where none is known. */
const thickestOf = ({ leads }: Situation['laid']): number | null => {
  const known = leads.flatMap(({ cable }) => cable.thickness ?? [])
  return known.length === 0 ? null : Math.max(...known)
}

/** Trays and trunking take what is free in them. */
function* freeSections({ index, laid }: Situation): Iterable<Surround> {
  const own = thickestOf(laid)
  if (own === null) return
  for (const id of pathwaysOf(laid.run)) {
    const pathway = index.pathways.get(id)
    if (pathway?.free === undefined) continue
    const { free, name: way } = pathway
    const bundle = together(bundleOf([own, ...pathway.beside]), othersIn(index, id, laid.run))
    const { share, allowed } = bundleInSection(free, bundle)
    if (allowed) continue
    yield {
      grade: 'blocked',
      part: runPart(laid.run),
      reason: { code: 'free-section', taken: share * free, free, cables: bundle.cables, way },
      remedies: [{ code: 'wider-conduit' }],
    }
  }
}

/** What a run passes: what is said of its own route, and of the pathways it follows. */
export const passedBy = ({ index, laid }: Pick<Situation, 'index' | 'laid'>): ReadonlySet<Surrounding> =>
  new Set([
    ...(laid.run.route.through ?? []),
    ...[...pathwaysOf(laid.run)].flatMap((id) => index.pathways.get(id)?.through ?? []),
  ])
