import type { Construction } from '../standards/grades'
import { isBetterMode, LINK_MODES, type LinkMode, lanePairs, linkModeFacts, pairRate } from '../standards/link-modes'
import { SHORTEST_SOAK_SECONDS } from '../standards/soak'
import type { Instant } from '../vocabulary/fields'
import { type Here, isHere, isStale, type Spot, spotKey } from './spot'

/** What came up when a mode was tried, as far as it weighs. */
export type Trial = {
  at: Instant
  basis: 'measured' | 'soaked'
  tried: LinkMode
  cameUp: LinkMode | null
  seconds?: number
  /** How often it dropped while it was watched. */
  drops?: number
  spot: Spot
  /** It follows from a copy that went so fast; nobody watched a link. */
  copied?: true
}

/** What a lead ought to do at its length, by its mark, chip, listing, construction and length alone. An unmarked lead ought to do nothing. */
export type Ought = (mode: LinkMode) => boolean

const dropped = ({ cameUp, basis }: Trial): boolean => cameUp === null && basis === 'soaked'
const watched = ({ seconds, basis }: Trial): number => seconds ?? (basis === 'soaked' ? SHORTEST_SOAK_SECONDS : 0)
/** It was watched for so long that it counts as holding: never before 60 s (common practice). */
const heldLong = (trial: Trial): boolean => trial.cameUp !== null && watched(trial) >= SHORTEST_SOAK_SECONDS

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
 * The modes a trial has shown to fail, before what asks as much of the same pairs is added. A link that dropped fails in the mode it was in. One that came
 * up lower, or not at all, fails in what this lead ought to have done there: coming up as it ought is no failure of modes nobody asked of it. USB 2.0
 * that does not come up says nothing about the fast pairs, and the reverse.
 */
function failures(trial: Trial, ought: Ought, construction: Construction): LinkMode[] {
  const { tried, cameUp } = trial
  if (dropped(trial)) return [tried]
  if (!isBetterMode(tried, cameUp)) return []
  return LINK_MODES.filter(
    (mode) =>
      !isBetterMode(mode, tried) &&
      isBetterMode(mode, cameUp) &&
      sameWires(mode, tried) &&
      !(cameUp !== null && implies(cameUp, mode, construction)) &&
      ought(mode),
  )
}

/** What one trial says of one mode. */
function sayOf(trial: Trial, mode: LinkMode, lead: TriedLead): 'holds' | 'comes up' | 'fails' | 'drops' | null {
  const { cameUp } = trial
  const carried = cameUp !== null && implies(cameUp, mode, lead.construction)
  if (carried) return heldLong(trial) ? 'holds' : 'comes up'
  if (!failures(trial, lead.ought, lead.construction).some((failed) => asksAsMuch(mode, failed))) return null
  return dropped(trial) ? 'drops' : 'fails'
}

/** What is asked of a lead's trials: what it ought to do, and how it is built. */
export type TriedLead = { ought: Ought; construction: Construction }

/** How a mode stands in one place after all its trials there, and the trial that says so. */
export type Standing = { says: 'holds' | 'comes up' | 'fails' | 'drops'; trial: Trial }

const isBad = ({ says }: Standing): boolean => says === 'fails' || says === 'drops'

/** Oldest first; of one moment what is worse comes last, so that it wins. Nothing else orders them but what they say: neither ids nor who wrote first. */
const byMoment = (one: Standing, other: Standing): number => {
  if (one.trial.at !== other.trial.at) return one.trial.at < other.trial.at ? -1 : 1
  return (
    WORSE_LAST.indexOf(one.says) - WORSE_LAST.indexOf(other.says) ||
    watched(one.trial) - watched(other.trial) ||
    inOneOrder(one.trial, other.trial)
  )
}
const WORSE_LAST = ['comes up', 'holds', 'fails', 'drops'] as const

/**
 * The latest counts; but a link that dropped is cleared only by a look that lasted at least as long: a marginal lead looks fine for 45 seconds and drops a
 * minute later (common practice).
 */
function standing(trials: readonly Trial[], mode: LinkMode, lead: TriedLead): Standing | null {
  const said: Standing[] = []
  for (const trial of trials) {
    const says = sayOf(trial, mode, lead)
    if (says) said.push({ says, trial })
  }
  if (said.length > 1) said.sort(byMoment)
  let now = null as Standing | null
  /** Seconds a look must last to clear what dropped. */
  let toClear = 0
  for (const next of said) {
    if (isBad(next)) {
      const before = now !== null && isBad(now) ? toClear : 0
      toClear = Math.max(before, next.says === 'drops' ? watched(next.trial) : 0)
      // a drop is told before a fall that came after it and says less
      now = next
    } else if (now === null || !isBad(now)) {
      // a short look after a long one takes nothing from it
      now = now?.says === 'holds' && next.says === 'comes up' ? now : next
    } else if (watched(next.trial) >= toClear) now = next
  }
  return now
}

/** What trials say of a mode: in one socket, and in how many others it held or failed. */
export type SeenOfMode = {
  here: Standing | null
  /** What was seen here was seen before the computer changed. */
  stale: boolean
  /** Other sockets in which it came up or held, and those in which it failed. */
  held: number
  failed: number
  /** Of the other sockets, those of this controller in which it held for 60 s or more. */
  heldOnController: number
  /** In some other socket it held for 60 s or more. */
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

/** What the trials of a lead say of a mode in a socket; of no socket at all, every one is another. */
export function seenOfMode(trials: readonly Trial[], mode: LinkMode, lead: TriedLead, here: Here | null): SeenOfMode {
  if (trials.length === 0) return NOTHING_SEEN
  const own: Trial[] = []
  const others = new Map<string, Trial[]>()
  for (const trial of trials) {
    if (here && isHere(trial.spot, here)) own.push(trial)
    else {
      const { port, controller, alone } = trial.spot
      const key = `${port ?? controller ?? ''} ${alone ?? ''}`
      const list = others.get(key)
      if (list) list.push(trial)
      else others.set(key, [trial])
    }
  }
  const standingHere = standing(own, mode, lead)
  const seen: SeenOfMode = {
    ...NOTHING_SEEN,
    here: standingHere,
    stale: standingHere !== null && here !== null && isStale(standingHere.trial.spot, here),
  }
  for (const list of others.values()) {
    const there = standing(list, mode, lead)
    if (there === null) continue
    if (isBad(there)) {
      seen.failed += 1
      seen.dropped ||= there.says === 'drops'
      continue
    }
    seen.held += 1
    seen.heldLong ||= there.says === 'holds'
    const { port, controller } = there.trial.spot
    if (there.says === 'holds' && port !== undefined && controller !== undefined && controller === here?.controller)
      seen.heldOnController += 1
  }
  return seen
}

/** Whether a mode was seen at all after a moment, in one socket: a link that drops higher up was seen to run lower down. */
export const seenAfter = (
  trials: readonly Trial[],
  mode: LinkMode,
  lead: TriedLead,
  here: Here,
  at: Instant,
): boolean =>
  trials.some(
    (trial) =>
      trial.at > at &&
      isHere(trial.spot, here) &&
      trial.cameUp !== null &&
      heldLong(trial) &&
      implies(trial.cameUp, mode, lead.construction),
  )

/** Trials of which a later, as long or longer one of the same outcome says all they say are left out. */
export function withoutRepeats(trials: readonly Trial[]): Trial[] {
  const latestFirst = [...trials].sort((one, other) =>
    one.at < other.at ? 1 : one.at > other.at ? -1 : watched(other) - watched(one) || inOneOrder(one, other),
  )
  const kept: Trial[] = []
  const longest = new Map<string, number>()
  for (const trial of latestFirst) {
    const { basis, tried, cameUp, spot, copied } = trial
    const outcome = `${cameUp === null ? basis : ''} ${tried} ${cameUp} ${copied ?? ''} ${spotKey(spot)}`
    const seconds = watched(trial)
    if (seconds <= (longest.get(outcome) ?? -1)) continue
    longest.set(outcome, seconds)
    kept.push(trial)
  }
  return kept.reverse().sort(inOneOrder)
}

/** An order that follows from what trials say alone. */
function inOneOrder(one: Trial, other: Trial): number {
  if (one.at !== other.at) return one.at < other.at ? -1 : 1
  const [first, second] = [contentOf(one), contentOf(other)]
  return first < second ? -1 : first > second ? 1 : 0
}

const contentOf = ({ tried, cameUp, basis, seconds = 0, spot, copied }: Trial): string =>
  [spotKey(spot), tried, cameUp, basis, seconds, copied].join(' ')
