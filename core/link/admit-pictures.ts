import { fitThrough, leastCompressed } from '../picture/fit'
import { type LinkSpec, linkFacts } from '../picture/link-spec'
import { sharePictures } from '../picture/time-slots'
import { bitsPerPixel, streamRate } from '../picture/timing'
import { atLeast } from '../quantity/limit'
import type { BitsPerSecond } from '../quantity/rate'
import { admitPictures, type PictureEnds, type Tunnel } from '../tunnel/tunnel'
import type { Policy } from '../vocabulary/policy'
import type { Admission, CrossedPicture } from './admission'
import { NOTHING, only } from './each-way'
import type { PictureLink } from './picture-link'

/** Most docks and hosts of a tunnel speak this; taken where a survey does not say. */
const usualEnds: PictureEnds = { link: 'hbr3', lanes: 4 }

/** What a picture asks of a tunnel: its mode, and what its ends speak, without the compression that somebody forbade. */
const askedOfTunnel = ({ need, ends = usualEnds }: CrossedPicture) => ({
  mode: need.mode,
  ends: need.uncompressed ? { ...ends, compression: false } : ends,
})

/** What a picture in a tunnel would send less, compressed as far as it may be. */
export function squeezable({ need, ends }: CrossedPicture, admission: Admission | undefined): BitsPerSecond {
  if (!admission?.admitted || need.uncompressed || !ends?.compression) return 0
  const plain = bitsPerPixel(need.mode)
  return Math.max(0, admission.sent.down + admission.sent.up - (streamRate(need.mode) * leastCompressed(plain)) / plain)
}

/** Pictures in a tunnel, which reserve what they hold of it one after another. */
export function throughTunnel(
  pictures: readonly CrossedPicture[],
  link: PictureLink,
  tunnel: Tunnel,
  reservation: Policy['reservation'],
): Admission[] {
  const plan = admitPictures(tunnel, pictures.map(askedOfTunnel), reservation)
  let reserved = 0
  return pictures.map(({ need, way }, at) => {
    const admitted = plan.pictures[at]
    if (!admitted) throw new Error('the tunnel lost a picture')
    const { step, available, fits, compressedBits } = admitted
    const before = reserved
    reserved += admitted.reserved
    const spec: LinkSpec | null = step && { family: 'displayport', link: step.link, lanes: step.lanes }
    const rule = reservation === 'link' ? 'whole link rates are held' : 'stream rates are held'
    const where = spec ? ` at ${linkFacts(spec).name}` : ''
    const carrier = { name: `${link.name}${where} (${rule})`, source: link.source }
    // what is refused though it would fit is refused because no step is so small
    const refused = atLeast(available, admitted.wanted) ? 0 : available
    const have = reservation === 'stream' && fits ? available : Math.min(step?.payload ?? refused, available)
    return {
      need,
      way,
      asked: only(way, admitted.wanted),
      found: only(way, available),
      held: only(way, admitted.reserved),
      sent: only(way, admitted.loads),
      admitted: fits || compressedBits !== null,
      overUsb: false,
      byController: false,
      have,
      wanted: compressedBits === null ? admitted.wanted : admitted.loads,
      before,
      carrier,
      spec,
      compressedBits,
    }
  })
}

/** Pictures on pins or in a lead of their own: several share the time slots of a DisplayPort link; HDMI and DVI carry one (from memory). */
export function besideData(pictures: readonly CrossedPicture[], link: PictureLink | null): Admission[] {
  const shared = link?.stages.length === 1 ? link.stages[0] : undefined
  if (link && pictures.length > 1 && shared?.family === 'displayport') return inSlots(pictures, link, shared)
  let taken = 0
  return pictures.map(({ need, way }) => {
    const passed =
      link && taken === 0
        ? fitThrough(need.mode, link.stages, { compression: link.compression && !need.uncompressed })
        : null
    const found = link && taken === 0 ? (passed?.fit.have ?? link.payload) : 0
    const wanted = passed?.fit.need ?? streamRate(need.mode)
    const admitted = link !== null && atLeast(found, wanted)
    const before = taken
    if (admitted) taken += wanted
    const sent = admitted ? only(way, wanted) : NOTHING
    return {
      need,
      way,
      asked: only(way, streamRate(need.mode)),
      found: only(way, found),
      held: sent,
      sent,
      admitted,
      overUsb: false,
      byController: false,
      have: found,
      wanted,
      before,
      carrier: link && { name: passed ? linkFacts(passed.spec).name : link.name, source: link.source },
      spec: passed?.spec ?? null,
      compressedBits: passed?.fit.compressedBits ?? null,
    }
  })
}

/** Several displays behind one DisplayPort link share its time slots, whole ones each. */
function inSlots(
  pictures: readonly CrossedPicture[],
  link: PictureLink,
  spec: Extract<LinkSpec, { family: 'displayport' }>,
): Admission[] {
  const { shares, slots, worth } = sharePictures(
    spec,
    pictures.map(({ need }) => ({ mode: need.mode, compression: link.compression && !need.uncompressed })),
  )
  return pictures.map(({ need, way }, at) => {
    const share = shares[at]
    if (!share) throw new Error('the link lost a picture')
    const wanted = share.slots * worth
    const have = (slots - share.before) * worth
    const sent = share.fits ? only(way, wanted) : NOTHING
    return {
      need,
      way,
      asked: only(way, wanted),
      found: only(way, have),
      held: sent,
      sent,
      admitted: share.fits,
      overUsb: false,
      byController: false,
      wanted,
      before: share.before * worth,
      have,
      carrier: { name: `${link.name}, shared in time slots,`, source: link.source },
      spec: null,
      compressedBits: share.compressedBits,
    }
  })
}
