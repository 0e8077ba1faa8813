import { fitPicture } from '../picture/fit'
import { type LinkSpec, linkFacts } from '../picture/link-spec'
import { sharePictures } from '../picture/time-slots'
import { streamRate } from '../picture/timing'
import { atLeast } from '../quantity/limit'
import type { BitsPerSecond } from '../quantity/rate'
import { type LinkMode, linkModeFacts } from '../standards/link-modes'
import type { Source } from '../standards/source'
import { admitPictures, type PictureEnds, tunnelOf } from '../tunnel/tunnel'
import { NEED_KINDS, type Need } from '../vocabulary/need'
import type { Policy } from '../vocabulary/policy'
import type { PictureLink } from './picture-link'

/** What one need finds on a run: what is left for it, and what it asks. */
export type Admission = {
  need: Need
  have: BitsPerSecond
  wanted: BitsPerSecond
  /** What earlier needs have taken, in the same figures as `have`. */
  before: BitsPerSecond
  /** The link that carries it; null where there is none. */
  carrier: { name: string; source: Source } | null
  /** The link a picture came up at, for what fits instead; null in the middle of a shared one. */
  spec?: LinkSpec | null
  /** Bits a pixel where it goes through compressed. */
  compressedBits?: number | null
}

type Way = 'down' | 'up'

/** Data sheets of sensors and of plain data links name the mark on the plug; files, streams and frames are payload. */
export const namesLineRate = (need: Need): boolean =>
  need.kind === 'data' || need.kind === 'sensor' || need.kind === 'audio'

/** A need as it crosses a run; for a picture, what its first and last ports speak to each other through the tunnel. */
export type Crossed = { need: Need; way: Way; ends?: PictureEnds }

/** Most docks and hosts of a tunnel speak this; taken where a survey does not say. */
const usualEnds: PictureEnds = { link: 'hbr3', lanes: 4 }

/**
 * Admits needs to a run one after another: pictures first, then what cannot wait, storage last (common practice; docks
 * serve pictures first). Each finds what the earlier ones have left in its direction. Pictures in a tunnel reserve by the site's
 * policy and load the way they flow; storage is written one way and read the other, not at once; USB 2.0 has one wire for both ways.
 */
export function admit(
  crossings: readonly Crossed[],
  mode: LinkMode | null,
  picture: PictureLink | null,
  reservation: Policy['reservation'],
): Admission[] {
  const inOrder = crossings
    .filter(({ need }) => need.kind !== 'power')
    .sort((one, other) => precedence(one.need, other.need))
  const taken = { down: 0, up: 0 }
  const pictures = inOrder.flatMap((crossed) =>
    crossed.need.kind === 'picture' ? [{ ...crossed, need: crossed.need }] : [],
  )
  const admitted =
    picture?.via === 'tunnel' && mode
      ? throughTunnel(pictures, picture, mode, reservation, taken)
      : besideData(pictures, picture)
  for (const { need, way } of inOrder) {
    if (need.kind !== 'picture') admitted.push(admitData(need, way, mode, taken))
  }
  return admitted
}

export type CrossedPicture = Crossed & { need: Extract<Need, { kind: 'picture' }> }

/** What a picture asks of a tunnel: its mode, and what its ends speak, without the compression that somebody forbade. */
export const askedOfTunnel = ({ need, ends = usualEnds }: CrossedPicture) => ({
  mode: need.mode,
  ends: need.uncompressed ? { ...ends, compression: false } : ends,
})

function throughTunnel(
  pictures: readonly CrossedPicture[],
  link: PictureLink,
  mode: LinkMode,
  reservation: Policy['reservation'],
  taken: Record<Way, number>,
): Admission[] {
  const plan = admitPictures(tunnelOf(linkModeFacts[mode].line), pictures.map(askedOfTunnel), reservation)
  let reserved = 0
  return pictures.map(({ need, way }, at) => {
    const admitted = plan.pictures[at]
    if (!admitted) throw new Error('the tunnel lost a picture')
    const { step, available, fits, compressedBits } = admitted
    taken[way] += admitted.loads
    const before = reserved
    reserved += admitted.reserved
    const spec: LinkSpec | null = step && { family: 'displayport', link: step.link, lanes: step.lanes }
    const rule = reservation === 'link' ? 'this site reserves whole link rates' : 'this site reserves stream rates'
    const where = spec ? ` at ${linkFacts(spec).name}` : ''
    const carrier = { name: `${link.name}${where} (${rule})`, source: link.source }
    const have = reservation === 'stream' && fits ? available : Math.min(step?.payload ?? 0, available)
    if (compressedBits !== null) return { need, wanted: admitted.loads, before, have, carrier, spec, compressedBits }
    return { need, wanted: admitted.wanted, before, have, carrier, spec }
  })
}

function besideData(pictures: readonly CrossedPicture[], link: PictureLink | null): Admission[] {
  if (pictures.length > 1 && link?.spec?.family === 'displayport') return inSlots(pictures, link, link.spec)
  let before = 0
  return pictures.map(({ need }) => {
    const have = Math.max(0, (link?.payload ?? 0) - before)
    const fit = link?.spec
      ? fitPicture(need.mode, link.spec, { compression: link.compression && before === 0 && !need.uncompressed })
      : null
    const wanted = fit?.need ?? streamRate(need.mode)
    const admission: Admission = {
      need,
      wanted,
      before,
      have,
      carrier: link && { name: link.name, source: link.source },
      spec: before === 0 ? (link?.spec ?? null) : null,
      compressedBits: fit?.compressedBits,
    }
    // what finds no room takes none
    if (atLeast(have, wanted)) before += wanted
    return admission
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
    pictures.map(({ need }) => need.mode),
  )
  return pictures.map(({ need }, at) => {
    const share = shares[at]
    if (!share) throw new Error('the link lost a picture')
    return {
      need,
      wanted: share.slots * worth,
      before: share.before * worth,
      have: (slots - share.before) * worth,
      carrier: { name: `${link.name}, shared in time slots,`, source: link.source },
    }
  })
}

function admitData(
  need: Exclude<Need, { kind: 'picture' }>,
  way: Way,
  mode: LinkMode | null,
  taken: Record<Way, number>,
): Admission {
  const asked = askedEachWay(need, way, mode)
  if (mode === null) return { need, wanted: Math.max(asked.down, asked.up), before: 0, have: 0, carrier: null }
  const { line, payload, name, source } = linkModeFacts[mode]
  const scale = namesLineRate(need) ? line / payload : 1
  const [first = way, ...others] = (['down', 'up'] as const).filter((each) => asked[each] > 0)
  const left = (each: Way): number => Math.max(0, payload - taken[each])
  // the way on which less is left of what is asked decides
  const tightest = others.reduce(
    (worse, each) => (left(each) * asked[worse] < left(worse) * asked[each] ? each : worse),
    first,
  )
  const admission = {
    need,
    wanted: asked[tightest],
    before: taken[tightest] * scale,
    have: left(tightest) * scale,
    carrier: { name, source },
  }
  for (const each of ['down', 'up'] as const) taken[each] += asked[each] / scale
  return admission
}

/** What data asks of each way: storage is written along its own and read against it; on USB 2.0 both go over one wire. */
export function askedEachWay(
  need: Exclude<Need, { kind: 'picture' }>,
  way: Way,
  mode: LinkMode | null = null,
): Record<Way, BitsPerSecond> {
  const along = 'rate' in need ? need.rate : 0
  const back = need.kind === 'storage' ? (need.back ?? need.rate) : 0
  if (mode === 'usb2') return { down: Math.max(along, back), up: Math.max(along, back) }
  return way === 'down' ? { down: along, up: back } : { down: back, up: along }
}

/** Served after every need that states a priority. */
const UNSTATED = 10

/** By kind, then by the priority stated; of equal ones the order of the list stays. */
const precedence = (one: Need, other: Need): number =>
  NEED_KINDS.indexOf(one.kind) - NEED_KINDS.indexOf(other.kind) ||
  (one.priority ?? UNSTATED) - (other.priority ?? UNSTATED)
