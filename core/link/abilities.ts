import type { Basis } from '../observe/basis'
import { type KnownCable, markedWatts, wasTried } from '../observe/known'
import { learntOfCable } from '../observe/learned'
import { type LastTried, NOTHING_LEARNT } from '../observe/learnt'
import { basisOf, type LinkSeries } from '../observe/links'
import type { SiteIndex } from '../plan/site-index'
import type { BitsPerSecond } from '../quantity/rate'
import type { Watts } from '../quantity/watts'
import { isLegacyUsb } from '../standards/connectors'
import { bestMode, LINK_MODES, type LinkMode, linkModeFacts } from '../standards/link-modes'
import type { Cable } from '../vocabulary/cable'
import type { Policy } from '../vocabulary/policy'
import { type Carried, carries } from './chain'
import { knownOf, type LaidLead, looseLead } from './lay'
import { type LeadPicture, leadPicture } from './lead-picture'

/** What one cable is good for as it lies in the hand: at its own length, by all that is known of it. */
export type Abilities = {
  cable: Cable
  known: KnownCable
  /** How its rate is known; a trial that decides it counts as the stronger. */
  basis: Basis
  mode: LinkMode | null
  rate: BitsPerSecond
  picture: LeadPicture | null
  watts: Watts
  /** The last time somebody tried something of it. */
  last: LastTried | null
}

/** How a lead that lies in no run carries a mode: what was seen of it was seen in some socket, and none of them is this one. */
export const carriesAlone = (lead: LaidLead, mode: LinkMode, policy: Policy): Carried =>
  carries({ leads: [lead], seen: NOTHING_LEARNT, here: null }, mode, policy)

/** Whether a mode can be promised of a lead before any socket is thought of: it comes up, and failed in none. */
export function isPromising(lead: LaidLead, mode: LinkMode, policy: Policy): boolean {
  const { lack, doubt } = carriesAlone(lead, mode, policy)
  return lack === null && (doubt === null || doubt.failed === 0)
}

/** What a cable is good for by itself, before any run is thought of; the site's policy says whether bench passes count beyond the book. */
export function abilitiesOf(index: SiteIndex, cable: Cable): Abilities {
  const known = knownOf(index, cable)
  const { mode, picture } = widestOf(index, cable, known)
  const tried = known.links.filter((each) => each.cameUp === mode || each.tried === mode)
  const last = tried.reduce<LinkSeries | null>((now, each) => (now === null || each.at > now.at ? each : now), null)
  return {
    cable,
    known,
    basis: last ? basisOf(last) : known.grade.basis,
    mode,
    rate: mode === null ? 0 : linkModeFacts[mode].line,
    picture,
    watts: promisedWatts(cable, known),
    last: learntOfCable(index.learned, cable.id)?.last ?? null,
  }
}

/** What most ports have: few speak plain USB over two lanes, so nothing is promised by that. */
const USUAL_MODES = LINK_MODES.filter((mode) => mode !== 'gen1x2' && mode !== 'gen2x2')

/** An older plug passes 5 V at 3 A and negotiates nothing (common practice). */
const MOST_OVER_OLDER_PLUG: Watts = 15

/** The watts a lead may be promised for: none where it ran hot. */
function promisedWatts({ ends }: Cable, known: KnownCable): Watts {
  if (known.hot) return 0
  const marked = markedWatts(known)
  return ends.some(({ connector }) => isLegacyUsb(connector)) ? Math.min(MOST_OVER_OLDER_PLUG, marked) : marked
}

type Widest = Pick<Abilities, 'mode' | 'picture'>
/** Drawers are full of cables that are alike; what one of them is good for under a policy is worked out once. */
const widestByPolicy = new WeakMap<Policy, Map<string, Widest>>()

function widestOf(index: SiteIndex, cable: Cable, known: KnownCable): Widest {
  if (known.hot) return { mode: null, picture: null }
  if (wasTried(known)) return workOutWidest(index, cable)
  const { ends, length, construction, feed, pair } = cable
  const alike = `${known.grade.value} ${construction} ${feed} ${pair} ${length} ${ends.map(({ connector, gender }) => connector + gender)}`
  const { policy } = index.plan
  let answers = widestByPolicy.get(policy)
  if (!answers) {
    answers = new Map()
    widestByPolicy.set(policy, answers)
  }
  let widest = answers.get(alike)
  if (!widest) {
    widest = workOutWidest(index, cable)
    answers.set(alike, widest)
  }
  return widest
}

function workOutWidest(index: SiteIndex, cable: Cable): Widest {
  const { policy } = index.plan
  const lead = looseLead(index, cable)
  return {
    mode: bestMode(USUAL_MODES.filter((candidate) => isPromising(lead, candidate, policy))),
    picture: leadPicture(lead),
  }
}
