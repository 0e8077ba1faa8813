import type { BitsPerSecond } from '../quantity/rate'
import type { PictureMode } from '../vocabulary/need'
import { compressedTarget, leastCompressed } from './fit'
import { type LinkSpec, linkFacts } from './link-spec'
import { bitsPerPixel, cvtTiming } from './timing'

/** How several displays share one DisplayPort link: each stream gets whole time slots. */
export type SlotShare = {
  mode: PictureMode
  pbn: number
  slots: number
  fits: boolean
  /** Slots that earlier pictures have taken. */
  before: number
  /** Bits a pixel where it goes through compressed. */
  compressedBits: number | null
}
export type SlotPlan = {
  shares: SlotShare[]
  slots: number
  used: number
  /** What one slot carries. */
  worth: BitsPerSecond
}

/** Payload bandwidth numbers are units of 54/64 MB/s, with 0.6 % for clock spread (DisplayPort 1.2; the figures of Linux DRM's own test). */
export function payloadBandwidthNumber(kilohertz: number, bitsPerPixelOfMode: number): number {
  return Math.ceil((kilohertz * bitsPerPixelOfMode * 64 * 1006) / (8 * 54 * 1e6))
}

const PBN_UNIT_BITS = (54 / 64) * 1e6 * 8
const SLOTS = 64

/** With 8b/10b coding the first slot of the 64 carries the header. */
const slotsOf = (spec: Extract<LinkSpec, { family: 'displayport' }>): number =>
  spec.link.startsWith('uhbr') ? SLOTS : SLOTS - 1

/** A picture that asks for a share, and whether both its ends can compress. */
export type SlotAsk = { mode: PictureMode; compression: boolean }

type DisplayPortSpec = Extract<LinkSpec, { family: 'displayport' }>

/** The slots that a picture takes at so many bits a pixel. */
function slotsAt(spec: DisplayPortSpec, mode: PictureMode, bits: number): { pbn: number; slots: number } {
  const worth = linkFacts(spec).payload / SLOTS
  const pbn = payloadBandwidthNumber(cvtTiming(mode).pixelClockHz / 1000, bits)
  return { pbn, slots: Math.ceil((pbn * PBN_UNIT_BITS) / worth) }
}

/** The most bits a pixel at which a picture takes no more than so many slots; null where it may not be compressed so far. */
function bitsWithin(spec: DisplayPortSpec, mode: PictureMode, room: number): number | null {
  const have = (room * linkFacts(spec).payload) / SLOTS
  const timing = cvtTiming(mode)
  let bits = compressedTarget(have, timing, bitsPerPixel(mode))
  // whole slots and the clock's spread take a little more than the stream alone
  while (bits !== null && slotsAt(spec, mode, bits).slots > room)
    bits = compressedTarget((bits - STEP / 2) * timing.pixelClockHz, timing, bitsPerPixel(mode))
  return bits
}
const STEP = 1 / 16

/**
 * Admits pictures to a multi-stream link in order; one that finds too few slots is refused and takes none. A picture whose ends can compress is compressed
 * where it does not fit otherwise. All of them are, as far as they go, where that lets more pictures through.
 */
export function sharePictures(spec: DisplayPortSpec, asks: readonly SlotAsk[]): SlotPlan {
  const asNeeded = shareIn(spec, asks, 'as needed')
  if (asNeeded.shares.every(({ fits }) => fits) || !asks.some(({ compression }) => compression)) return asNeeded
  const furthest = shareIn(spec, asks, 'furthest')
  const admitted = ({ shares }: SlotPlan): number => shares.filter(({ fits }) => fits).length
  return admitted(furthest) > admitted(asNeeded) ? furthest : asNeeded
}

function shareIn(spec: DisplayPortSpec, asks: readonly SlotAsk[], compress: 'as needed' | 'furthest'): SlotPlan {
  const pool = slotsOf(spec)
  let used = 0
  const shares = asks.map(({ mode, compression }): SlotShare => {
    const plain = slotsAt(spec, mode, bitsPerPixel(mode))
    const before = used
    const fitsPlain = before + plain.slots <= pool
    const bits =
      !compression || (fitsPlain && compress === 'as needed')
        ? null
        : compress === 'furthest'
          ? leastCompressed(bitsPerPixel(mode))
          : bitsWithin(spec, mode, pool - before)
    const { pbn, slots } = bits === null ? plain : slotsAt(spec, mode, bits)
    const fits = before + slots <= pool
    if (fits) used += slots
    return { mode, pbn, slots, fits, before, compressedBits: bits }
  })
  return { shares, slots: pool, used, worth: linkFacts(spec).payload / SLOTS }
}
