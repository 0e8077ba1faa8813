import type { BitsPerSecond } from '../quantity/rate'
import type { PictureMode } from '../vocabulary/need'
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

/** The slots of a link, what one is worth, and how many a picture takes. */
function slotsFor(
  spec: Extract<LinkSpec, { family: 'displayport' }>,
  mode: PictureMode,
): { pool: number; worth: BitsPerSecond; wanted: number; pbn: number } {
  const worth = linkFacts(spec).payload / SLOTS
  const pbn = payloadBandwidthNumber(cvtTiming(mode).pixelClockHz / 1000, bitsPerPixel(mode))
  return { pool: slotsOf(spec), worth, pbn, wanted: Math.ceil((pbn * PBN_UNIT_BITS) / worth) }
}

/** Admits pictures to a multi-stream link in order; one that finds too few slots is refused and takes none. */
export function sharePictures(
  spec: Extract<LinkSpec, { family: 'displayport' }>,
  modes: readonly PictureMode[],
): SlotPlan {
  let used = 0
  const shares = modes.map((mode): SlotShare => {
    const { pool, pbn, wanted } = slotsFor(spec, mode)
    const before = used
    const fits = before + wanted <= pool
    if (fits) used += wanted
    return { mode, pbn, slots: wanted, fits, before }
  })
  return { shares, slots: slotsOf(spec), used, worth: linkFacts(spec).payload / SLOTS }
}
