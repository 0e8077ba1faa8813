import type { Cable, Evidence } from '../plan/cable'
import type { SiteIndex } from '../plan/site-index'
import type { BitsPerSecond } from '../quantity/rate'
import type { Watts } from '../quantity/watts'
import { bestMode, LINK_MODES, type LinkMode, linkModeFacts } from '../standards/link-modes'
import { dataLack } from './chain'
import { type Basis, type KnownCable, markedWatts } from './known'
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
  last: Evidence | null
}

/** A cable by itself, asked what it carries on any controller: a trial counts wherever it was made. */
export function leadByItself(index: SiteIndex, cable: Cable): LaidLead {
  const lead = looseLead(index, cable)
  const trials = lead.known.trials.map(({ controller: _, ...trial }) => trial)
  return { ...lead, known: { ...lead.known, trials } }
}

/** What a cable is good for by itself, before any run is thought of; the site's policy says whether bench passes count beyond the book. */
export function abilitiesOf(index: SiteIndex, cable: Cable): Abilities {
  const known = knownOf(index, cable)
  const { mode, picture } = widestOf(index, cable, known)
  const trial = known.trials.findLast((each) => each.cameUp === mode || each.tried === mode)
  return {
    cable,
    known,
    basis: trial?.basis ?? known.grade.basis,
    mode,
    rate: mode === null ? 0 : linkModeFacts[mode].line,
    picture,
    watts: markedWatts(known),
    last: newest(cable.evidence),
  }
}

type Widest = Pick<Abilities, 'mode' | 'picture'>
/** Drawers are full of cables that are alike; what one of them is good for is worked out once. */
const widestBySite = new WeakMap<SiteIndex, Map<string, Widest>>()

function widestOf(index: SiteIndex, cable: Cable, known: KnownCable): Widest {
  if (known.trials.length > 0) return workOutWidest(index, cable)
  const { ends, length, construction, feed } = cable
  const alike = `${known.grade.value} ${construction} ${feed} ${length} ${ends.map(({ connector, gender }) => connector + gender)}`
  let answers = widestBySite.get(index)
  if (!answers) {
    answers = new Map()
    widestBySite.set(index, answers)
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
  const lead = leadByItself(index, cable)
  return {
    mode: bestMode(LINK_MODES.filter((candidate) => dataLack([lead], candidate, policy, undefined) === null)),
    picture: leadPicture(lead),
  }
}

/** The latest piece of evidence that somebody tried something; of one day the one written last. */
function newest(evidence: readonly Evidence[]): Evidence | null {
  let latest: Evidence | null = null
  for (const piece of evidence) {
    if (piece.basis !== 'measured' && piece.basis !== 'soaked') continue
    if (latest === null || piece.on >= latest.on) latest = piece
  }
  return latest
}
