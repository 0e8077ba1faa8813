import { IN_PLACE_SECONDS } from '../observe/basis'
import { isGood } from '../observe/came'
import type { KnownCable } from '../observe/known'
import { learnedOf, learntOf } from '../observe/learned'
import { longestOf, secondsOf } from '../observe/ledger'
import { isHold, type LinkSeries } from '../observe/links'
import type { Observation } from '../observe/observation'
import type { SiteIndex } from '../plan/site-index'
import type { LinkMode } from '../standards/link-modes'
import type { Cable, CableKind } from '../vocabulary/cable'
import { othersWeight } from '../vocabulary/policy'
import { keptWith } from '../work/kept'
import {
  type AskedOf,
  addTo,
  countedAt,
  type Estimate,
  estimate,
  levelsOf,
  type Outcome,
  type Sum,
  type Sums,
  sumsOf,
  TOP_ODDS,
} from './estimate'
import { knownOf, looseLead, oughtOf } from './lay'
import { cameIn } from './record'

/** What came of one cable in one mode, in one place that it was tried in, with how long it was watched there. */
export type CableOutcome = Outcome & {
  seconds: number
  drops: number
  inPlace: boolean
  /** What it counts in, from the broadest to the closest. */
  levels: readonly string[]
}

/** What was tried of a cable comes to the same as long as what is known of it, its kind's name and what the site asks of a look do. */
const kept = new WeakMap<KnownCable, { by: string; outcomes: readonly CableOutcome[] }>()

/** What came of a cable in each mode that was tried, in each place that it was tried in: it held there, by all its tries, or it did not. */
export function outcomesOfCable(index: SiteIndex, cable: Cable): readonly CableOutcome[] {
  const known = knownOf(index, cable)
  if (known.links.length === 0) return NONE
  const kind = cable.kind === undefined ? null : (index.kinds.get(cable.kind)?.name.toLowerCase() ?? null)
  const { soak, reliedFrom } = index.plan.policy
  const { length, construction } = cable
  const by = `${kind} ${length} ${construction} ${soak} ${reliedFrom}`
  const found = kept.get(known)
  if (found?.by === by) return found.outcomes
  const lead = oughtOf(looseLead(index, cable))
  const places = new Map<string, LinkSeries[]>()
  for (const series of known.links) {
    if (series.copied) continue
    const { port, controller } = series.spot
    const key = `${series.tried} ${controller ?? ''} ${port ?? ''}`
    places.set(key, [...(places.get(key) ?? []), series])
  }
  const outcomes = [...places.values()].flatMap((all): CableOutcome[] => {
    const [first] = all
    if (!first) return []
    const { tried: mode, spot } = first
    const { port, controller = null } = spot
    // where nobody noted the socket it was some socket of its run
    const socket = port === undefined || port.startsWith('run ') ? null : port
    const held = isGood(cameIn(all, mode, lead) ?? null)
    const what = { mode, construction, kind, length, controller, socket }
    return [
      {
        ...what,
        held: Number(held),
        tried: 1,
        levels: levelsOf(what),
        seconds: all.reduce((sum, series) => sum + secondsOf(series), 0),
        drops: all.reduce((sum, { dropped, times }) => sum + (dropped ? times : 0), 0),
        inPlace: held && all.some((series) => isHold(series) && longestOf(series) >= IN_PLACE_SECONDS),
      },
    ]
  })
  kept.set(known, { by, outcomes })
  return outcomes
}
const NONE: readonly CableOutcome[] = []

/** Outcomes of several cables: of which, by which of the site's rules, of each, and all together. */
type Gathered = {
  cables: readonly Cable[]
  by: string
  of: (readonly CableOutcome[])[]
  all: readonly CableOutcome[]
  /** Of which something was seen since: these are to be looked at again. */
  stale: ReadonlySet<string>
}

/** What was gathered last under one name: as long as nothing new came of any of the cables, it stays the same list. */
const gathered = new WeakMap<object, Gathered>()

/** What was gathered of a site with its very observations; what more observations do not touch is not even looked at again. */
const gatheredBy = keptWith(
  (_: readonly Observation[]): Map<object, Gathered> => new Map(),
  (known, _, { added, removed, replaced }) => {
    const touched = new Set(
      [...added, ...removed, ...replaced.flat()].flatMap(({ subject }) =>
        'run' in subject
          ? subject.leads
          : 'cable' in subject
            ? [subject.cable]
            : 'kind' in subject
              ? [subject.kind]
              : [],
      ),
    )
    return new Map(
      Array.from(known, ([name, each]) => {
        const stale = each.cables.flatMap(({ id, kind = '' }) => (touched.has(id) || touched.has(kind) ? [id] : []))
        return [name, stale.length > 0 ? { ...each, stale: new Set([...each.stale, ...stale]) } : each]
      }),
    )
  },
)

function outcomesOfCables(index: SiteIndex, name: object, cables: readonly Cable[]): readonly CableOutcome[] {
  const { plan, learned } = index
  const { soak, reliedFrom } = plan.policy
  const by = `${soak} ${reliedFrom} ${plan.site.practice}`
  // of a site that is looked at without some of what was seen nothing is kept
  const ready = learned === learnedOf(plan) ? gatheredBy(plan.observations) : new Map<object, Gathered>()
  const known = ready.get(name)
  const stands = known?.cables === cables && known.by === by
  if (stands && known.stale.size === 0) return known.all
  const of = cables.map((cable, at) => {
    const seen = stands && !known.stale.has(cable.id) ? known.of[at] : undefined
    return seen ?? outcomesOfCable(index, cable)
  })
  const last = gathered.get(name)
  const isSame = last?.of.length === of.length && of.every((each, at) => each === last.of[at])
  const now: Gathered = { cables, by, of, all: last && isSame ? last.all : of.flat(), stale: NONE_STALE }
  gathered.set(name, now)
  ready.set(name, now)
  return now.all
}

const NONE_STALE: ReadonlySet<string> = new Set()

/** What came of every cable of a kind. */
export const outcomesOfKind = (index: SiteIndex, kind: CableKind): readonly CableOutcome[] =>
  outcomesOfCables(index, kind, index.cablesOfKind.get(kind.id) ?? [])

/** Cables of no kind, and of one that is gone. */
const kindless = keptWith((cables: SiteIndex['plan']['cables']) => cables.filter(({ kind }) => kind === undefined))

const countedOnce = keptWith(countedAt)

/** What was counted on a site. What nothing new came of is not counted again. */
const sumsOn = keptWith((index: SiteIndex): Sums => {
  const ofKinds = new Map<string, ReadonlyMap<string, Sum>[]>()
  const broad = new Map<string, Sum>()
  const loose = kindless(index.plan.cables)
  const add = (outcomes: readonly CableOutcome[], name: string | null): void => {
    if (outcomes.length === 0) return
    const counted = countedOnce(outcomes)
    for (const [each, sum] of counted.broad) addTo(broad, each, sum)
    if (name !== null) ofKinds.set(name, [...(ofKinds.get(name) ?? []), counted.close])
  }
  for (const kind of index.plan.kinds) add(outcomesOfKind(index, kind), kind.name.toLowerCase())
  add(outcomesOfCables(index, loose, loose), null)
  return { broad, within: (kind) => (kind === null ? [] : (ofKinds.get(kind) ?? [])) }
})

/** What others told of kinds that this site has as well: by its name, and as closely as they told it. */
export type ToldByOthers = Pick<Outcome, 'mode' | 'kind' | 'length'> & Sum

/** What others told as outcomes of kinds of this site. Which controllers and sockets they have says nothing here. */
function theirsOn({ plan, learned }: SiteIndex, told: readonly ToldByOthers[]): Outcome[] {
  const builds = new Map(plan.kinds.map(({ name, construction }) => [name.toLowerCase(), construction]))
  const counted = plan.kinds.flatMap(({ id, name }) =>
    (learntOf(learned, { kind: id })?.counted ?? []).map((each) => ({ ...each, kind: name, length: null })),
  )
  return [...counted, ...told].flatMap(({ mode, kind, length, held, tried }): Outcome[] => {
    const name = kind?.toLowerCase() ?? ''
    const construction = builds.get(name)
    return construction === undefined
      ? []
      : [{ mode, construction, kind: name, length, controller: null, socket: null, held, tried }]
  })
}
const countedByOthers = keptWith((index: SiteIndex): Sums => sumsOf(theirsOn(index, [])))
const toldSums = new WeakMap<readonly ToldByOthers[], { of: SiteIndex; sums: Sums }>()

function othersOn(index: SiteIndex, told: readonly ToldByOthers[]): Sums {
  if (told.length === 0) return countedByOthers(index)
  const found = toldSums.get(told)
  if (found?.of === index) return found.sums
  const sums = sumsOf(theirsOn(index, told))
  toldSums.set(told, { of: index, sums })
  return sums
}

/**
 * How likely a lead is to hold on this site, by all that was tried on it, and by what others counted as much as the site's rule lets it. `told` is what other
 * sites tell, where it is known.
 */
export const estimateOn = (
  index: SiteIndex,
  asked: AskedOf,
  told: readonly ToldByOthers[] = NOBODY,
  weight: number = othersWeight(index.plan.policy),
): Estimate => estimate(sumsOn(index), asked, { others: othersOn(index, told), weight })
const NOBODY: readonly ToldByOthers[] = []

/** Asked for each lead that is offered anywhere, and worked out once for what was counted. */
const ownIn = keptWith((_: Sums): Map<string, Estimate> => new Map())

/** How many of one kind and length held a mode on this site, wherever they were tried; a verdict reads no more than that. */
export function ownOfKind(
  index: SiteIndex,
  { kind, length, construction }: Pick<Cable, 'kind' | 'length' | 'construction'>,
  mode: LinkMode,
): Estimate {
  const name = kind === undefined ? undefined : index.kinds.get(kind)?.name.toLowerCase()
  if (name === undefined) return UNTRIED
  const sums = sumsOn(index)
  const known = ownIn(sums)
  const key = `${mode} ${construction} ${length} ${name}`
  const found = known.get(key)
  if (found) return found
  const made = estimate(sums, { mode, construction, kind: name, length })
  known.set(key, made)
  return made
}
const UNTRIED: Estimate = { odds: TOP_ODDS, open: 1, own: null, ofKind: { held: 0, tried: 0 } }
