import { fitThrough, leastCompressed } from '../picture/fit'
import { type LinkSpec, linkFacts } from '../picture/link-spec'
import { sharePictures } from '../picture/time-slots'
import { bitsPerPixel, streamRate } from '../picture/timing'
import { atLeast } from '../quantity/limit'
import type { BitsPerSecond } from '../quantity/rate'
import { bestMode, type LinkMode, linkModeFacts } from '../standards/link-modes'
import type { Source } from '../standards/source'
import { admitPictures, PICTURE_SHARE, type PictureEnds, tunnelOf } from '../tunnel/tunnel'
import { NEED_KINDS, type Need } from '../vocabulary/need'
import type { Policy } from '../vocabulary/policy'
import type { PictureLink } from './picture-link'

/** The way a need takes along a run: down is from its host end to its far end. */
export type Way = 'down' | 'up'
const WAYS = ['down', 'up'] as const

/** A rate toward the far end, and one back. */
export type EachWay = Readonly<Record<Way, BitsPerSecond>>
const NOTHING: EachWay = { down: 0, up: 0 }
const only = (way: Way, rate: BitsPerSecond): EachWay => ({ ...NOTHING, [way]: rate })

/** What one need asks of a run, what it found when its turn came, and what came of it. */
export type Admission = {
  need: Need
  way: Way
  /** What it asks, after coding. */
  asked: EachWay
  /** What the needs before it left. */
  found: EachWay
  /** What is held for it; a picture in a tunnel often holds more than it sends. */
  held: EachWay
  /** What it really sends. */
  sent: EachWay
  /** It finds all that it asks. */
  admitted: boolean
  /** A picture that goes as data, by a driver. */
  overUsb: boolean
  /** On the way on which the least is left of what it asks, in the figures its data sheet names: what it finds, what it asks, what earlier needs have taken. */
  have: BitsPerSecond
  wanted: BitsPerSecond
  before: BitsPerSecond
  /** The link that carries it; null where there is none. */
  carrier: { name: string; source: Source } | null
  /** The link a picture came up at, for what fits instead; null for data, for a picture that is refused, and in the middle of a shared link. */
  spec: LinkSpec | null
  /** Bits a pixel where it goes through compressed. */
  compressedBits: number | null
}

/** A run as what crosses it fills it. */
export type Uplink = {
  /** In the order they are served. */
  admissions: readonly Admission[]
  /** The mode that is left to data beside a picture on the same pins; null where there is none. */
  mode: LinkMode | null
  /** What the link carries after coding. */
  payload: EachWay
  /** What pictures may hold of it together; null where they do not share it with the data. */
  forPictures: BitsPerSecond | null
  /** What storage finds while the pictures run, and while they do not. */
  forStorage: EachWay
  idle: EachWay
  /** What nothing that was admitted takes. */
  left: EachWay
  /** What the pictures would send less if they were compressed as far as they may be. */
  compressible: BitsPerSecond
}

/** Data sheets of sensors and of plain data links name the mark on the plug; files, streams and frames are payload. */
export const namesLineRate = (need: Need): boolean =>
  need.kind === 'data' || need.kind === 'sensor' || need.kind === 'audio'

/** A need as it crosses a run. */
export type Crossed = {
  need: Need
  way: Way
  /** For a picture: what its first and last ports speak to each other through the tunnel. */
  ends?: PictureEnds
  /** Further down it comes up as USB 2.0, so that here it takes the pair of USB 2.0 and not the fast ones. */
  usb2?: boolean
  /** A picture that a dock makes over plain USB: what it takes of the link as data. */
  overUsb?: BitsPerSecond
}

/** What a run has come up in, and how it is shared. */
export type Carriers = {
  mode: LinkMode | null
  /** The pair of USB 2.0 gets through beside a faster link. */
  pair: boolean
  picture: PictureLink | null
  /** Both ends are type-C, so that a picture on pins of its own takes them from the data. */
  onDataPins: boolean
  reservation: Policy['reservation']
}

/** Most docks and hosts of a tunnel speak this; taken where a survey does not say. */
const usualEnds: PictureEnds = { link: 'hbr3', lanes: 4 }

/**
 * Admits needs to a run one after another: pictures first, then what cannot wait, storage last (common practice; docks serve pictures first). Each finds
 * what the earlier ones left in its direction; what is refused holds and takes nothing. Pictures in a tunnel reserve by the host's way or the site's rules, and
 * load the way they flow. Storage is written one way and read the other. USB 2.0 has one pair for both ways, which all behind a hub share (USB 3.2, from
 * memory). Beside four lanes of picture on the pins of type-C only USB 2.0 is left, beside two a one-lane link.
 */
export function admit(crossings: readonly Crossed[], carriers: Carriers): Uplink {
  const { picture } = carriers
  const mode = modeBeside(crossings, carriers)
  const inOrder = crossings
    .filter(({ need }) => need.kind !== 'power')
    .sort((one, other) => precedence(one.need, other.need))
  const pictures = inOrder.filter(isPicture)
  const tunnelled = picture?.via === 'tunnel' && mode !== null
  const shown = tunnelled ? throughTunnel(pictures, picture, mode, carriers.reservation) : besideData(pictures, picture)
  const payload = mode === null ? 0 : linkModeFacts[mode].payload
  const sent = tunnelled ? sumOf(shown, ({ sent }) => sent) : NOTHING
  const fast: Pool = { mode, left: { down: payload - sent.down, up: payload - sent.up }, loads: sent }
  const slow: Pool =
    mode === 'usb2'
      ? fast
      : {
          mode: mode !== null && carriers.pair ? 'usb2' : null,
          left: { down: linkModeFacts.usb2.payload, up: linkModeFacts.usb2.payload },
          loads: NOTHING,
        }
  const admissions = [...shown]
  let forStorage = fast.left
  for (const crossed of inOrder) {
    if (isPicture(crossed)) continue
    const { need, usb2 } = crossed
    admissions.push(admitData(crossed, usb2 ? slow : fast))
    if (need.kind !== 'storage') forStorage = fast.left
  }
  const streams = sumOf(
    admissions.filter(({ need, overUsb }) => (need.kind !== 'picture' || overUsb) && need.kind !== 'storage'),
    ({ sent }) => sent,
  )
  return {
    admissions,
    mode,
    payload: { down: payload, up: payload },
    forPictures: tunnelled ? linkModeFacts[mode].line * PICTURE_SHARE : null,
    forStorage: floored(forStorage),
    idle: floored({ down: payload - streams.down, up: payload - streams.up }),
    left: floored(fast.left),
    compressible: tunnelled ? pictures.reduce((sum, crossed, at) => sum + squeezable(crossed, shown[at]), 0) : 0,
  }
}

type CrossedPicture = Crossed & { need: Extract<Need, { kind: 'picture' }> }
/** A picture that goes as one: on pins, in a lead or a tunnel, and not as the data of a driver. */
const isPicture = (crossed: Crossed): crossed is CrossedPicture =>
  crossed.need.kind === 'picture' && crossed.overUsb === undefined

const sumOf = (admissions: readonly Admission[], rateOf: (admission: Admission) => EachWay): EachWay =>
  admissions.reduce((sum, each) => ({ down: sum.down + rateOf(each).down, up: sum.up + rateOf(each).up }), NOTHING)
const floored = ({ down, up }: EachWay): EachWay => ({ down: Math.max(0, down), up: Math.max(0, up) })

const ONE_LANE = ['usb2', 'gen1x1', 'gen2x1'] as const satisfies LinkMode[]

/** What a picture on pins of its own leaves to the data (USB Type-C, pin assignments C and D, from memory). */
function modeBeside(crossings: readonly Crossed[], { mode, picture, onDataPins }: Carriers): LinkMode | null {
  if (mode === null || !onDataPins || picture?.via !== 'displayport' || !crossings.some(isPicture)) return mode
  if (picture.spec?.family === 'displayport' && picture.spec.lanes === 4) return 'usb2'
  return bestMode(ONE_LANE.filter((lane) => linkModeFacts[lane].line <= linkModeFacts[mode].line))
}

/** What a picture asks of a tunnel: its mode, and what its ends speak, without the compression that somebody forbade. */
const askedOfTunnel = ({ need, ends = usualEnds }: CrossedPicture) => ({
  mode: need.mode,
  ends: need.uncompressed ? { ...ends, compression: false } : ends,
})

/** What a picture in a tunnel would send less, compressed as far as it may be. */
function squeezable({ need, ends }: CrossedPicture, admission: Admission | undefined): BitsPerSecond {
  if (!admission?.admitted || need.uncompressed || !ends?.compression) return 0
  const plain = bitsPerPixel(need.mode)
  return Math.max(0, admission.sent.down + admission.sent.up - (streamRate(need.mode) * leastCompressed(plain)) / plain)
}

function throughTunnel(
  pictures: readonly CrossedPicture[],
  link: PictureLink,
  mode: LinkMode,
  reservation: Policy['reservation'],
): Admission[] {
  const plan = admitPictures(tunnelOf(linkModeFacts[mode].line), pictures.map(askedOfTunnel), reservation)
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
function besideData(pictures: readonly CrossedPicture[], link: PictureLink | null): Admission[] {
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
      wanted,
      before: share.before * worth,
      have,
      carrier: { name: `${link.name}, shared in time slots,`, source: link.source },
      spec: null,
      compressedBits: share.compressedBits,
    }
  })
}

/** Wires that data shares: what is left of them each way, and what they carry already. */
type Pool = { mode: LinkMode | null; left: EachWay; loads: EachWay }

/** Finds room for data, and takes it from the pool where there is enough. */
function admitData(crossed: Crossed, pool: Pool): Admission {
  const { need, way } = crossed
  const { mode } = pool
  const named = askedEachWay(crossed, mode)
  const facts = mode === null ? null : linkModeFacts[mode]
  // a data sheet that names the mark on the plug is held against the mark
  const scale = facts && namesLineRate(need) ? facts.line / facts.payload : 1
  const asked: EachWay = { down: named.down / scale, up: named.up / scale }
  const found = mode === null ? NOTHING : floored(pool.left)
  const [first = way, ...others] = WAYS.filter((each) => asked[each] > 0)
  // the way on which less is left of what is asked decides
  const tightest = others.reduce(
    (worse, each) => (found[each] * asked[worse] < found[worse] * asked[each] ? each : worse),
    first,
  )
  const admitted = mode !== null && WAYS.every((each) => atLeast(found[each], asked[each]))
  const sent = admitted ? asked : NOTHING
  const admission: Admission = {
    need,
    way,
    asked,
    found,
    held: sent,
    sent,
    admitted,
    overUsb: crossed.overUsb !== undefined,
    have: found[tightest] * scale,
    wanted: named[tightest],
    before: pool.loads[tightest] * scale,
    carrier: facts && { name: facts.name, source: facts.source },
    spec: null,
    compressedBits: null,
  }
  pool.left = { down: pool.left.down - sent.down, up: pool.left.up - sent.up }
  pool.loads = { down: pool.loads.down + sent.down, up: pool.loads.up + sent.up }
  return admission
}

/** What data asks of each way: storage is written along its own and read against it; on USB 2.0 both go over one pair. */
function askedEachWay({ need, way, overUsb }: Crossed, mode: LinkMode | null): EachWay {
  const along = overUsb ?? ('rate' in need ? need.rate : 0)
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
