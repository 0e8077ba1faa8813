import type { PictureMode } from '../plan/need'
import type { LinkSpec } from './link-spec'
import { linkFacts } from './link-spec'
import { bitsPerPixel, cvtTiming } from './timing'

/** How several displays share one DisplayPort link: each stream gets whole time slots. */
export type SlotShare = { mode: PictureMode; pbn: number; slots: number; fits: boolean }
export type SlotPlan = { shares: SlotShare[]; slots: number; used: number }

/** Payload bandwidth numbers are units of 54/64 MB/s, with 0.6 % for clock spread (DisplayPort 1.2; the figures of Linux DRM's own test). */
export function payloadBandwidthNumber(kilohertz: number, bitsPerPixelOfMode: number): number {
  return Math.ceil((kilohertz * bitsPerPixelOfMode * 64 * 1006) / (8 * 54 * 1e6))
}

const PBN_UNIT_BITS = (54 / 64) * 1e6 * 8
const SLOTS = 64

/** With 8b/10b coding the first slot of the 64 carries the header. */
const slotsOf = (spec: Extract<LinkSpec, { family: 'displayport' }>): number =>
  spec.link.startsWith('uhbr') ? SLOTS : SLOTS - 1

/** Admits pictures to a multi-stream link in order; one that finds too few slots is refused and takes none. */
export function sharePictures(
  spec: Extract<LinkSpec, { family: 'displayport' }>,
  modes: readonly PictureMode[],
): SlotPlan {
  const pbnPerSlot = linkFacts(spec).payload / PBN_UNIT_BITS / SLOTS
  const slots = slotsOf(spec)
  let used = 0
  const shares = modes.map((mode): SlotShare => {
    const pbn = payloadBandwidthNumber(cvtTiming(mode).pixelClockHz / 1000, bitsPerPixel(mode))
    const wanted = Math.ceil(pbn / pbnPerSlot)
    const fits = used + wanted <= slots
    if (fits) used += wanted
    return { mode, pbn, slots: wanted, fits }
  })
  return { shares, slots, used }
}
