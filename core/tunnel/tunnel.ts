import { type Fit, fitPicture } from '../picture/fit'
import { streamRate } from '../picture/timing'
import { atMost } from '../quantity/limit'
import { type BitsPerSecond, GIGABIT } from '../quantity/rate'
import { DISPLAYPORT_LINKS, type DisplayPortLink, displayPortLane } from '../standards/picture-links'
import { fromMemory, published, type Source } from '../standards/source'
import type { PictureMode } from '../vocabulary/need'
import type { Policy } from '../vocabulary/policy'

/** Tunnels by their rate toward the dock and back, in Gb/s; 120/40 lends two lanes to pictures. */
export const TUNNELS = ['20', '40', '80', '120/40'] as const
export type Tunnel = (typeof TUNNELS)[number]

const usb4 = fromMemory('USB4 and USB4 v2, coding of each rate')
export const tunnelFacts: Record<Tunnel, { down: BitsPerSecond; up: BitsPerSecond; payloadShare: number }> = {
  '20': { down: 20 * GIGABIT, up: 20 * GIGABIT, payloadShare: 64 / 66 },
  '40': { down: 40 * GIGABIT, up: 40 * GIGABIT, payloadShare: 128 / 132 },
  '80': { down: 80 * GIGABIT, up: 80 * GIGABIT, payloadShare: 0.96 },
  '120/40': { down: 120 * GIGABIT, up: 40 * GIGABIT, payloadShare: 0.96 },
}

/** Pictures get at most nine tenths of the link; the rest is guard band. */
export const PICTURE_SHARE = 0.9
export const tunnelSource: Source = published('Linux thunderbolt driver, DisplayPort tunnels')

export type PictureEnds = { link: DisplayPortLink; lanes: 1 | 2 | 4; compression?: boolean }
export type TunnelPicture = { mode: PictureMode; ends: PictureEnds }

/** Steps a picture may come up at, best first: a link rate with a number of lanes, as hosts try them. */
export type Rung = { link: DisplayPortLink; lanes: 1 | 2 | 4; payload: BitsPerSecond }
export const LADDER: readonly Rung[] = makeLadder()

function makeLadder(): Rung[] {
  const steps: Rung[] = []
  for (const link of DISPLAYPORT_LINKS) {
    for (const lanes of [1, 2, 4] as const) steps.push({ link, lanes, payload: displayPortLane[link].payload * lanes })
  }
  // of equal payloads the one with the faster link and fewer lanes is tried first
  return steps.sort((one, other) => other.payload - one.payload || one.lanes - other.lanes)
}

export type Admitted = {
  mode: PictureMode
  /** What the picture itself asks. */
  wanted: BitsPerSecond
  /** What was left to reserve from when its turn came. */
  available: BitsPerSecond
  /** The step it came up at; null: refused. */
  step: Rung | null
  reserved: BitsPerSecond
  /** The wanted mode goes through the step it came up at, without compression. */
  fits: boolean
  /** Bits a pixel where it goes through compressed, which a host tries before it lets the picture fall; null otherwise. */
  compressedBits: number | null
  /** What it really sends: compressed, as much as its step carries, or nothing where it is refused. */
  loads: BitsPerSecond
}

export type TunnelPlan = {
  pictures: Admitted[]
  /** Payload left for storage, cards and network, each way. */
  left: { down: BitsPerSecond; up: BitsPerSecond }
  source: Source
}

/**
 * Admits pictures to a tunnel one after another. Each reserves, of what earlier ones left of 90 % of the link, by the site's policy:
 * a whole link rate (the best step that its ends and the remainder allow, what hosts usually do) or its own stream rate (newer hosts).
 * So a second display may come up lower because the first reserved more than it uses. What is left for data is the link's payload
 * less what the pictures really send, as unused reservations stay free for it; pictures load the way toward the dock only.
 */
export function admitPictures(
  tunnel: Tunnel,
  pictures: readonly TunnelPicture[],
  policy: Policy['reservation'],
): TunnelPlan {
  const { down, up, payloadShare } = tunnelFacts[tunnel]
  let available = down * PICTURE_SHARE
  let sent = 0
  const admitted = pictures.map(({ mode, ends }): Admitted => {
    const wanted = streamRate(mode)
    const step =
      policy === 'link'
        ? bestRung(ends, available)
        : atMost(wanted, available)
          ? leastRung(ends, wanted)
          : bestRung(ends, available)
    const fits = step !== null && atMost(wanted, step.payload) && atMost(wanted, available)
    const compressed = fits || step === null || !ends.compression ? null : squeezed(mode, step)
    const sends = compressed?.need ?? wanted
    const loads = step === null ? 0 : Math.min(sends, step.payload)
    const reserved = step === null ? 0 : policy === 'stream' && (fits || compressed) ? sends : step.payload
    const entry = {
      mode,
      wanted,
      available,
      step,
      reserved,
      fits,
      compressedBits: compressed?.compressedBits ?? null,
      loads,
    }
    available = Math.max(0, available - reserved)
    sent += loads
    return entry
  })
  return {
    pictures: admitted,
    left: { down: Math.max(0, down * payloadShare - sent), up: up * payloadShare },
    source: pictures.length > 0 ? tunnelSource : usb4,
  }
}

/** The picture compressed to fit a step; null where it does not go through even so. */
function squeezed(mode: PictureMode, { link, lanes }: Rung): Fit | null {
  const fit = fitPicture(mode, { family: 'displayport', link, lanes }, { compression: true })
  return fit.fits ? fit : null
}

const within = (step: Rung, ends: PictureEnds): boolean =>
  DISPLAYPORT_LINKS.indexOf(step.link) <= DISPLAYPORT_LINKS.indexOf(ends.link) && step.lanes <= ends.lanes

const bestRung = (ends: PictureEnds, available: BitsPerSecond): Rung | null =>
  LADDER.find((step) => within(step, ends) && atMost(step.payload, available)) ?? null

/** The smallest step that carries a stream; the largest the ends have where none does. */
const leastRung = (ends: PictureEnds, wanted: BitsPerSecond): Rung | null =>
  LADDER.findLast((step) => within(step, ends) && atMost(wanted, step.payload)) ??
  LADDER.find((step) => within(step, ends)) ??
  null

export const tunnelOf = (lineRate: BitsPerSecond): Tunnel =>
  lineRate >= 80 * GIGABIT ? '80' : lineRate >= 40 * GIGABIT ? '40' : '20'
