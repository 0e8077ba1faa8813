import type { Construction } from '../standards/grades'
import { isBetterMode, LINK_MODES, type LinkMode, lanePairs, linkModeFacts, pairRate } from '../standards/link-modes'
import { SHORTEST_SOAK_SECONDS } from '../standards/soak'
import type { Instant } from '../vocabulary/fields'
import { type Asks, isGood } from './came'
import { longestOf, type Series, type Sort, secondsOf } from './ledger'
import { type Here, isHere } from './spot'
import { byPlace, type Standing, standingOf } from './standing'
import type { Says } from './tally'

/** What was tried of a link, and what came of it. */
export type LinkTried = {
  tried: LinkMode
  cameUp: LinkMode | null
  /** It had come up and dropped. */
  dropped?: true
  /** It follows from a copy that went so fast, and nobody watched a link. A lead with an older plug has one lane, and came up in this mode at least. */
  copied?: { oneLane: LinkMode }
}
export type LinkSeries = Series<LinkTried>

export const linkSort: Sort<LinkTried> = {
  nameOf: ({ tried, cameUp, dropped, copied }) =>
    copied ? `copied ${tried} ${copied.oneLane}` : `link ${tried} ${cameUp ?? (dropped ? 'dropped' : 'nothing')}`,
  canHold: ({ cameUp }) => cameUp !== null,
  canFail: ({ tried, cameUp }) => isBetterMode(tried, cameUp),
}

/** What a lead ought to do at its length, by its mark, chip, listing, construction and length alone. An unmarked lead ought to do nothing. */
export type Ought = (mode: LinkMode) => boolean

/** What is asked of a lead's trials: what it ought to do, how it is built, and what the site asks of a look. */
export type TriedLead = { ought: Ought; construction: Construction; asks: Asks }

/** The wires of USB 2.0 are a pair of their own, and say nothing of the fast ones. */
const sameWires = (one: LinkMode, other: LinkMode): boolean => (one === 'usb2') === (other === 'usb2')

/**
 * Whether a lead that carries `mode` therefore carries `less`: it asks no more of the same pairs. An active or optical lead repeats some sorts of signal
 * and not others, so there a tunnel says nothing of plain USB, nor the reverse.
 */
export function implies(mode: LinkMode, less: LinkMode, construction: Construction): boolean {
  if (mode === less) return true
  if (!sameWires(mode, less) || mode === 'usb2') return false
  if (construction !== 'passive' && linkModeFacts[mode].tunnel !== linkModeFacts[less].tunnel) return false
  return pairRate(less) <= pairRate(mode) && lanePairs(less) <= lanePairs(mode)
}

/** Whether a mode asks as much or more of the same pairs than another. */
const asksAsMuch = (mode: LinkMode, other: LinkMode): boolean =>
  mode === other || (sameWires(mode, other) && mode !== 'usb2' && pairRate(mode) >= pairRate(other))

/**
 * What one try says of a mode. What was tried and came up lower failed, and so does what asks as much. Between the two a mode failed only if this lead ought
 * to do it: coming up as it should is no failure of what nobody asked of it. A link that dropped fails in the mode it was in.
 */
export function saysOf(
  { tried, cameUp, dropped }: LinkTried,
  mode: LinkMode,
  { construction, ought }: Pick<TriedLead, 'construction' | 'ought'>,
): Says | null {
  if (cameUp !== null && implies(cameUp, mode, construction)) return 'held'
  if (dropped) return asksAsMuch(mode, tried) ? 'after a while' : null
  if (!isBetterMode(tried, cameUp)) return null
  const failed = (between: LinkMode): boolean =>
    between === tried ||
    (!isBetterMode(between, tried) &&
      isBetterMode(between, cameUp) &&
      sameWires(between, tried) &&
      !(cameUp !== null && implies(cameUp, between, construction)) &&
      ought(between))
  return LINK_MODES.some((between) => failed(between) && asksAsMuch(mode, between)) ? 'at once' : null
}

/** How a mode stands in one place. */
export type LinkStanding = Standing<LinkSeries>

/** What trials say of a mode: in one socket, and in how many others it held or failed. */
export type SeenOfMode = {
  here: LinkStanding | null
  /** What was seen here was seen before the computer changed. */
  stale: boolean
  /** Other sockets in which it came up or held, and those in which it failed. */
  held: number
  failed: number
  /** Of the other sockets, those of this controller in which it held long enough to be relied on. */
  heldOnController: number
  /** In some other socket it held so long. */
  heldLong: boolean
  /** Some other socket saw it drop. */
  dropped: boolean
}

export const NOTHING_SEEN: SeenOfMode = {
  here: null,
  stale: false,
  held: 0,
  failed: 0,
  heldOnController: 0,
  heldLong: false,
  dropped: false,
}

/** What was tried of a lead says of a mode in a socket; of no socket at all, every one is another. */
export function seenOfMode(
  links: readonly LinkSeries[],
  mode: LinkMode,
  lead: TriedLead,
  here: Here | null,
): SeenOfMode {
  const says = (series: LinkSeries): Says | null => saysOf(series, mode, lead)
  // most of what was tried says nothing of most modes
  const speaking = links.filter((series) => says(series) !== null)
  if (speaking.length === 0) return NOTHING_SEEN
  const { own, others } = byPlace(speaking, here)
  const standingHere = standingOf(own, says, lead.asks, here)
  const seen: SeenOfMode = { ...NOTHING_SEEN, here: standingHere, stale: standingHere?.stale ?? false }
  for (const list of others) {
    const there = standingOf(list, says, lead.asks, null)
    if (there === null) continue
    if (!isGood(there.came)) {
      seen.failed += 1
      seen.dropped ||= there.drops
      continue
    }
    seen.held += 1
    seen.heldLong ||= there.came === 'held'
    const { port, controller } = there.series.spot
    if (there.came === 'held' && port !== undefined && controller !== undefined && controller === here?.controller)
      seen.heldOnController += 1
  }
  return seen
}

/** Whether a mode was seen to hold for the least in one socket after a moment: a link that drops higher up was seen to run lower down. */
export const seenAfter = (
  links: readonly LinkSeries[],
  mode: LinkMode,
  lead: TriedLead,
  here: Here,
  at: Instant,
): boolean =>
  links.some(
    (series) =>
      series.at > at &&
      isHere(series.spot, here) &&
      series.cameUp !== null &&
      implies(series.cameUp, mode, lead.construction) &&
      longestOf(series) >= lead.asks.least,
  )

/** It came up as what was tried, or better. */
export const isHold = ({ tried, cameUp }: LinkTried): boolean => cameUp !== null && !isBetterMode(tried, cameUp)

/** How a series is known: it was watched as long as a soak at least, or somebody looked. */
export const basisOf = (series: LinkSeries): 'measured' | 'soaked' =>
  !series.copied && (series.dropped || longestOf(series) >= SHORTEST_SOAK_SECONDS) ? 'soaked' : 'measured'

/** One mode tried on one controller: how often, how often it held, for how many seconds it was watched and how often it dropped in them, and when last. */
export type ModeTally = {
  mode: LinkMode
  controller: string | null
  passed: number
  tried: number
  seconds: number
  drops: number
  last: Instant
}

/** What was tried of a lead, by mode and controller; what follows from copies alone is no try of a mode. */
export function talliesOf(links: readonly LinkSeries[]): ModeTally[] {
  const tallies = new Map<string, ModeTally>()
  for (const series of links) {
    if (series.copied) continue
    const { tried: mode, dropped, spot, at, times } = series
    const controller = spot.controller ?? null
    const key = `${mode} ${controller}`
    const tally = tallies.get(key) ?? { mode, controller, passed: 0, tried: 0, seconds: 0, drops: 0, last: at }
    tally.tried += times
    tally.passed += isHold(series) ? times : 0
    tally.seconds += secondsOf(series)
    tally.drops += dropped ? times : 0
    if (at > tally.last) tally.last = at
    tallies.set(key, tally)
  }
  return [...tallies].sort(([one], [other]) => (one < other ? -1 : 1)).map(([, tally]) => tally)
}
