import type { Metres } from '../quantity/length'
import type { BitsPerSecond } from '../quantity/rate'
import type { Watts } from '../quantity/watts'
import { commonPractice, type Source } from '../standards/source'

export const headsetSource: Source = commonPractice('headset batteries and leads')

/** Charging stops here while in use (common practice). */
export const CHARGE_CEILING = 0.92

export type Battery = {
  /** Watt hours from empty to full. */
  capacity: number
  /** What the headset draws while it is worn. */
  draw: Watts
  /** What arrives over the lead; 0 without one. */
  supply: Watts
  /** State of charge at the start, 0 to 1. */
  start?: number
  /** What of the surplus really reaches the battery. */
  efficiency?: number
}

export type BatteryCourse =
  | { course: 'drains'; hours: number }
  | { course: 'holds' }
  | { course: 'charges'; hoursToCeiling: number }

/** Within this of the draw the battery holds: less than it varies from scene to scene. */
const HOLDS_WITHIN: Watts = 0.25

/** Where the battery goes while the headset is worn: how long it lasts, that it holds, or when it reaches the ceiling of charging. */
export function batteryCourse({ capacity, draw, supply, start = 1, efficiency = 1 }: Battery): BatteryCourse {
  const surplus = supply - draw
  if (Math.abs(surplus) <= HOLDS_WITHIN) return { course: 'holds' }
  if (surplus < 0) return { course: 'drains', hours: (capacity * start) / -surplus }
  return {
    course: 'charges',
    hoursToCeiling: (capacity * Math.max(0, CHARGE_CEILING - start)) / (surplus * efficiency),
  }
}

/** What a headset draws at a refresh: as it was measured there, else what is said of it in general. */
export const drawAt = (
  { draw, uses = [] }: { draw: Watts; uses?: readonly { refresh: number; draw: Watts }[] | undefined },
  refresh: number | undefined,
): Watts => uses.find((use) => use.refresh === refresh)?.draw ?? draw

export type HeadsetLink = {
  /** What the link test read. */
  measured: BitsPerSecond
  /** The most its decoder takes. */
  decoder: BitsPerSecond
}

/** The rate that reaches the eye, and whether a faster cable could show in the picture. Once link and port exceed the decoder it cannot. */
export function encodedRate({ measured, decoder }: HeadsetLink): {
  rate: BitsPerSecond
  limit: 'decoder' | 'link'
  fasterCableHelps: boolean
} {
  const limit = measured >= decoder ? 'decoder' : 'link'
  return { rate: Math.min(measured, decoder), limit, fasterCableHelps: limit === 'link' }
}

export type PlayArea = {
  width: Metres
  depth: Metres
  /** Where the lead leaves the wall or ceiling, and the head it must reach. */
  portHeight: Metres
  headHeight: Metres
  /** From the port, along wall and floor, to the middle of the near edge. */
  toNearEdge?: Metres
  slack?: number
}

/** The lead that reaches the far corner at head height, from a port in the middle of the near edge, with slack (common practice: 2 m by 2 m takes 5 m with a floor-level port). */
export function leadForArea({ width, depth, portHeight, headHeight, toNearEdge = 0, slack = 0.1 }: PlayArea): Metres {
  const across = Math.hypot(width / 2, depth)
  const rise = Math.abs(headHeight - portHeight)
  // down the back and along the floor where the port is low: the lead hangs, it is not pulled straight
  return (toNearEdge + across + rise) * (1 + slack)
}
