import { sharedModes } from '../link/shared-modes'
import type { HeldBackBy, Where } from '../observe/every'
import type { TrialObservation, Tried, Unwritten } from '../observe/observation'
import { type SiteIndex, socketAt } from '../plan/site-index'
import { type Parsed, parsed, plainText, unreadable } from '../quantity/parsed'
import { bestMode, LINK_MODES, type LinkMode } from '../standards/link-modes'
import type { Cable } from '../vocabulary/cable'
import type { BenchTest, Session } from '../vocabulary/session'
import { predict } from './predict'
import { readValue } from './read-value'
import { whereAt } from './where'

/** What was read in one test of a session, as it was typed or tapped, and for how long the link was watched. */
export type RawReading = { test: BenchTest; text: string; seconds: number; limit?: HeldBackBy | undefined }

/**
 * A reading as an observation of its cable, without its id, its moment and who took it. A link is a mode, "nothing" or "dropped"; a copy is MB/s (a bare figure, or with its unit); watts and volts
 * are figures; a picture is "held" or "not"; a plug is "cool", "warm", "hot" or degrees Celsius. Anything else is refused with
 * what can be written.
 */
export function takeReading(
  index: SiteIndex,
  session: Session,
  cable: Cable,
  { test, text, seconds, limit }: RawReading,
): Parsed<Unwritten<Tried>> {
  const taken = { session: session.id, test: test.id }
  const plain = plainText(text).toLowerCase()
  const measured = {
    kind: 'reading',
    ...taken,
    where: whereOf(index, test),
    with: partnerOf(index, test),
    ...(limit ? { limit } : {}),
  } as const
  if (test.kind === 'link') return linkTrial(index, cable, test, plain, seconds, taken)
  const read = readValue(test, text)
  return read.ok ? parsed({ ...read.value, ...measured }) : read
}

type Taken = { session: string; test: string }

const whereOf = (index: SiteIndex, { from, to }: BenchTest): Where => whereAt(index, from, to)

function linkTrial(
  index: SiteIndex,
  cable: Cable,
  test: Extract<BenchTest, { kind: 'link' }>,
  plain: string,
  seconds: number,
  taken: Taken,
): Parsed<Unwritten<TrialObservation>> {
  const dropped = plain === 'dropped'
  const cameUp = LINK_MODES.find((mode) => mode === plain) ?? null
  if (cameUp === null && !dropped && plain !== 'nothing')
    return unreadable('Say which mode came up, that nothing did, or that it dropped.')
  const wished = dropped ? expectedMode(index, cable, test) : null
  // two ports always try for the best they share; what dropped had come up as what the lead promises
  const tried = wished ?? bestOf(cameUp, bestShared(index, test)) ?? 'usb2'
  const seen = dropped ? 'dropped' : (cameUp ?? 'nothing')
  return parsed({ ...trialSeen({ tried, seen, seconds, soak: test.soak }), where: whereOf(index, test), ...taken })
}

/** Watched longer than this is no longer a test: the reader takes no more. */
const LONGEST_WATCH = 10_000_000

/** What somebody saw of a link: the mode it came up as, that nothing did, or that it came up and dropped. */
export type SeenOfLink = LinkMode | 'nothing' | 'dropped'

/**
 * What was seen as a trial, without its moment. A link that dropped was being soaked, however early it let go: it rules out less than one that
 * never came up. Any other is soaked once it was watched for `soak` seconds; 0 is no soak at all.
 */
export function trialSeen({
  tried,
  seen,
  seconds,
  soak,
}: {
  tried: LinkMode
  seen: SeenOfLink
  seconds: number
  soak: number
}): Unwritten<TrialObservation> {
  const whole = Number.isFinite(seconds) ? Math.min(LONGEST_WATCH, Math.floor(Math.max(0, seconds))) : 0
  const soaked = seen === 'dropped' || (soak > 0 && whole >= soak)
  return {
    kind: 'trial',
    basis: soaked ? 'soaked' : 'measured',
    tried,
    cameUp: seen === 'nothing' || seen === 'dropped' ? null : seen,
    ...(whole > 0 ? { seconds: whole } : {}),
  }
}

const bestOf = (one: LinkMode | null, other: LinkMode | null): LinkMode | null =>
  bestMode([one, other].filter((mode) => mode !== null))

function expectedMode(index: SiteIndex, cable: Cable, test: BenchTest): LinkMode | null {
  const prediction = predict(index, test, cable)
  return prediction.kind === 'link' ? prediction.mode : null
}

const bestShared = (index: SiteIndex, test: BenchTest): LinkMode | null => bestMode(sharedModes(index, test))

/** The device a figure was read with: the charger for watts, the far device for anything else. */
const partnerOf = (index: SiteIndex, test: BenchTest): string =>
  socketAt(index, test.kind === 'watts' ? test.from : test.to).device.name
