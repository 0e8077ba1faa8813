import { failures, isGood } from '../observe/came'
import { type LinkSeries, type LinkStanding, NOTHING_SEEN, type SeenOfMode, seenOfMode } from '../observe/links'
import { inOnePlace } from '../observe/spot'
import type { Metres } from '../quantity/length'
import { atMost } from '../quantity/limit'
import type { SuccessRate } from '../quantity/statistics'
import type { LinkMode } from '../standards/link-modes'
import { isExtension, leadReach, printedLength, type Reach } from '../standards/reach'
import { commonPractice, type Source } from '../standards/source'
import type { Policy } from '../vocabulary/policy'
import { holdsMostly } from './estimate'
import { isWithinBook, type LaidLead, type LaidRun, oughtOf } from './lay'
import { ownOfKind } from './outcomes'

/** Why one lead of a chain does not carry something. */
export type Lack<T> =
  | { why: 'grade'; lead: LaidLead; mode: T }
  | { why: 'reach'; lead: LaidLead; mode: T; reach: Metres; source: Source }
  | { why: 'chain'; lead: LaidLead; mode: T; reach: Metres; total: Metres; source: Source }
  | { why: 'unfed'; lead: LaidLead; mode: T }
  | { why: 'failed'; lead: LaidLead; mode: T; trial: LinkSeries }
  | { why: 'doubted'; lead: LaidLead; mode: T; doubt: Doubt }

export const DOUBTS = [
  'elsewhere',
  'short look',
  'changed',
  'failed before',
  'drops',
  'comes and goes',
  'set right',
  'of its kind',
] as const

/** What speaks against relying on a mode that comes up by all that is known. */
export type Doubt = {
  lead: LaidLead
  /**
   * `elsewhere`: it was tried in other sockets and not in this one. `short look`: nobody watched it long enough. `changed`: the computer is another than when
   * it was tried; `failed before`: and it failed then. `drops`: the link comes up higher and drops. `comes and goes`: it did both here. `set right`: it failed
   * before somebody did something about it, and has not held often and long enough since. `of its kind`: nobody tried it, and most of its kind and length held.
   */
  why: (typeof DOUBTS)[number]
  held: number
  failed: number
  /** The link may drop: what asks for less is not safe either. */
  drops: boolean
}

const bench = commonPractice('what this lead has passed')

/**
 * Whether a row of leads carries `mode`; if not, which lead is the first that does not, and why.
 *
 * Passive leads in series share one budget: each uses the share `length / reach` of it, so two 5 m USB 2.0 extensions are
 * twice too long (common practice). An active or optical lead repeats the signal and starts a new budget. `passed` names leads that a trial has
 * shown to carry the mode at their length: each reaches as far as it did alone, and uses up its share of a row all the same.
 */
export function chainLack<T>(
  leads: readonly LaidLead[],
  mode: T,
  rowsOf: (lead: LaidLead) => readonly Reach<T>[],
  passed: (lead: LaidLead) => boolean,
): Lack<T> | null {
  let share = 0
  let extended = 0
  let total = 0
  for (const lead of leads) {
    const { construction, feed } = lead.cable
    const length = printedLength(lead.cable.length)
    const tried = passed(lead)
    const row =
      rowsOf(lead).find((candidate) => candidate.mode === mode) ?? (tried ? { reach: length, source: bench } : null)
    if (!row) return { why: 'grade', lead, mode }
    if (!tried && feed === 'required' && lead.feeding === 'unfed') return { why: 'unfed', lead, mode }
    const reach = tried ? Math.max(row.reach, length) : row.reach
    if (!atMost(length, reach)) return { why: 'reach', lead, mode, reach, source: row.source }
    if (construction !== 'passive') {
      share = 0
      extended = 0
      total = 0
      continue
    }
    // an extension is made to stand before a device's own lead: together they may be as long as a lead, and extensions alone as an extension
    if (isExtension(lead.shape)) extended += length / reach
    share += length / Math.max(reach, isExtension(lead.shape) ? plainReach(lead, mode) : 0)
    total += length
    if (!atMost(share, 1) || !atMost(extended, 1)) return { why: 'chain', lead, mode, reach, total, source: row.source }
  }
  return null
}

/** How far a lead of the same grade that is no extension carries a data mode by the book. */
function plainReach<T>({ known, cable, shape, feeding }: LaidLead, mode: T): Metres {
  const plain = leadReach(known.grade.value, cable.construction, shape === 'c-extension' ? 'c-c' : 'legacy', feeding)
  const row = plain.data.find((each) => each.mode === (mode as unknown))
  return row?.reach ?? 0
}

/** How a data mode fares over the leads of a run: why it does not come up, or what speaks against relying on it. */
export type Carried = { lack: Lack<LinkMode> | null; doubt: Doubt | null }

/** What of a laid run its leads are judged by. */
export type Chain = Pick<LaidRun, 'leads' | 'seen'> & { here: LaidRun['here'] | null }

const seenByLead = new WeakMap<LaidLead, { here: Chain['here']; modes: Map<LinkMode, SeenOfMode> }>()

/** What was tried of a lead says of a mode in a socket, worked out once for as long as the lead lies there. */
function seenOf(lead: LaidLead, mode: LinkMode, here: Chain['here']): SeenOfMode {
  let known = seenByLead.get(lead)
  if (known?.here !== here || !known) {
    known = { here, modes: new Map() }
    seenByLead.set(lead, known)
  }
  const found = known.modes.get(mode)
  if (found) return found
  const made = seenOfMode(lead.known.links, mode, oughtOf(lead), here)
  known.modes.set(mode, made)
  return made
}

const NO_DOUBT = { held: 0, failed: 0, drops: false } as const

/**
 * How a chain of leads carries a data mode: by the book and by what was seen of them, weighed by the rules of the site.
 *
 * What this very run has shown with these leads outweighs what is predicted for it. Of a single lead, what failed in this socket does not come up here, whatever
 * is printed; what held here is relied on. A lead that nothing promises the mode but trials elsewhere, or that failed in some other socket, may do it: that is
 * doubted. A pass counts within the length that the book allows a lead of its build. Beyond that it counts by the bench only, where it lasted 60 s or more.
 */
export function carries({ leads, seen, here }: Chain, mode: LinkMode, policy: Policy): Carried {
  const proof = seen.links.length === 0 ? NOTHING_SEEN : proofOf({ leads, seen, here }, mode)
  const [first] = leads
  let failed: { lead: LaidLead; trial: LinkSeries } | null = null
  if (first && proof.here?.came === 'failed') failed = { lead: first, trial: proof.here.series }

  let doubt: Doubt | null = null
  let passes: Set<LaidLead> | null = null
  for (const lead of leads) {
    if (lead.known.links.length === 0) continue
    const tried = seenOf(lead, mode, here)
    const ended = tried.here?.came === 'failed' ? tried.here.series : null
    if (ended && !outlasts(proof, ended)) failed ??= { lead, trial: ended }
    const promised = isPromised(lead, mode)
    if (!promised && counts(tried, lead, mode, policy)) {
      passes ??= new Set()
      passes.add(lead)
    }
    doubt ??= doubtOf(tried, lead, promised)
  }
  // by the bench what others of its kind and length did counts, for a lead that nobody saw fail itself
  if (policy.length === 'bench')
    for (const lead of leads) {
      if (passes?.has(lead) || isPromised(lead, mode) || failedAnywhere(lead, mode, here)) continue
      const own = ofItsKind(lead, mode)
      if (own === null) continue
      passes ??= new Set()
      passes.add(lead)
      doubt ??= { lead, why: 'of its kind', held: own.passed, failed: own.tried - own.passed, drops: false }
    }
  const lack = chainLack(leads, mode, dataRows, (lead) => passes?.has(lead) ?? false)
  // what nothing promises and nobody saw is not there to fail
  if (failed) return { lack: lack ?? { why: 'failed', mode, ...failed }, doubt: null }
  if (first && proof.here && (lack === null || isProved(proof.here, leads, mode, policy))) {
    const own = standingDoubt(proof.here, first)
    if (own) return { lack: null, doubt: own }
    // what held before the computer changed is no worse than if nobody had tried it
    const changed: Doubt | null = lack !== null ? { ...NO_DOUBT, lead: first, why: 'changed' } : doubt
    return { lack: null, doubt: proof.stale ? changed : null }
  }
  return { lack, doubt: lack === null ? doubt : null }
}

/** What this very run has shown of a mode with these leads; whatever was seen of it was seen here. */
export const proofOf = ({ leads: [first], seen, here }: Chain, mode: LinkMode): SeenOfMode =>
  first ? seenOfMode(seen.links.map(inOnePlace), mode, oughtOf(first), here ?? NOWHERE) : NOTHING_SEEN
const NOWHERE = { port: '', setup: '', neighbours: false }

/** The run itself held after its lead had failed in this socket. */
const outlasts = ({ here }: SeenOfMode, trial: LinkSeries): boolean =>
  here?.came === 'held' && here.series.at > trial.at

/** Its grade carries the mode at its length by the book. */
const isPromised = (lead: LaidLead, mode: LinkMode): boolean => chainLack([lead], mode, dataRows, () => false) === null

/** Whether what was seen lets a lead through that nothing else promises the mode. */
function counts(seen: SeenOfMode, lead: LaidLead, mode: LinkMode, { length }: Policy): boolean {
  const good = (seen.here !== null && seen.here.came !== 'failed') || seen.held > 0
  if (!good) return false
  if (isWithinBook(lead, mode)) return true
  return length === 'bench' && (seen.here?.came === 'held' || seen.heldOnController > 0 || seen.heldLong)
}

function failedAnywhere(lead: LaidLead, mode: LinkMode, at: Chain['here']): boolean {
  if (lead.known.links.length === 0) return false
  const { here, failed } = seenOf(lead, mode, at)
  return failed > 0 || (here !== null && !isGood(here.came))
}

/** What others of its kind and length did on this site, where most of them are sure to hold. */
function ofItsKind({ site, cable }: LaidLead, mode: LinkMode): SuccessRate | null {
  if (site === null || cable.kind === undefined) return null
  const estimate = ownOfKind(site, cable, mode)
  return holdsMostly(estimate) ? estimate.own : null
}

/** What this run has shown outweighs what is predicted, within the book by either school and beyond it by the bench. */
function isProved(
  { came, series }: LinkStanding,
  leads: readonly LaidLead[],
  mode: LinkMode,
  { length }: Policy,
): boolean {
  if (came !== 'held' && !(came === 'came up' && series.copied)) return false
  return (came === 'held' && length === 'bench') || leads.every((lead) => isWithinBook(lead, mode))
}

/** Sockets of one controller in which a lead must have held before its other sockets are relied on. */
const ENOUGH_SOCKETS = 2

function doubtOf(seen: SeenOfMode, lead: LaidLead, promised: boolean): Doubt | null {
  const { here, held, failed } = seen
  const figures = { lead, held, failed, drops: seen.dropped }
  if (here) {
    const own = standingDoubt(here, lead)
    if (own || promised) return own
    if (here.came === 'came up' && !here.series.copied) return { ...figures, why: 'short look', drops: false }
    return seen.stale ? { ...figures, why: 'changed', drops: false } : null
  }
  if (failed > 0) return { ...figures, why: 'elsewhere' }
  if (promised || held === 0 || seen.heldOnController >= ENOUGH_SOCKETS) return null
  return { ...figures, why: 'elsewhere' }
}

/** What failed in this very place and is not cleared, though it held as well or was set right. */
function standingDoubt({ came, tally, drops, stale }: LinkStanding, lead: LaidLead): Doubt | null {
  const counted = { lead, held: tally.held, failed: failures(tally), drops }
  if (came === 'comes and goes') return { ...counted, why: 'comes and goes' }
  if (came === 'begun anew') return { ...counted, why: stale ? 'failed before' : 'set right' }
  return null
}

/** What shows a link to drop in this socket, or in this very run; null where nobody saw it drop. */
export function dropOf(chain: Chain, mode: LinkMode): LinkStanding | null {
  const seen = [proofOf(chain, mode), ...chain.leads.map((lead) => seenOf(lead, mode, chain.here))]
  return seen.find(({ here }) => here?.came === 'failed' && here.drops)?.here ?? null
}

const dataRows = (lead: LaidLead): readonly Reach<LinkMode>[] => lead.reach.data
