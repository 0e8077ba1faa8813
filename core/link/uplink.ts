import { atLeast } from '../quantity/limit'
import type { BitsPerSecond } from '../quantity/rate'
import { bestMode, type LinkMode, linkModeFacts } from '../standards/link-modes'
import { commonPractice } from '../standards/source'
import { PICTURE_SHARE, type Tunnel, tunnelFacts, tunnelOf } from '../tunnel/tunnel'
import type { Policy } from '../vocabulary/policy'
import { type Admission, type Crossed, isPicture, leftOf, namesLineRate, precedence } from './admission'
import { besideData, squeezable, throughTunnel } from './admit-pictures'
import { ANYTHING, type EachWay, floored, leastOf, minus, NOTHING, plus, WAYS } from './each-way'
import type { PictureLink } from './picture-link'

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

/** What a run has come up in, and how it is shared. */
export type Carriers = {
  mode: LinkMode | null
  /** The pair of USB 2.0 gets through beside a faster link. */
  pair: boolean
  picture: PictureLink | null
  /** Both ends are type-C, so that a picture on pins of its own takes them from the data. */
  onDataPins: boolean
  reservation: Policy['reservation']
  /** Where it is not the tunnel of the mode: 80 Gb/s that lend pictures two lanes of the way back. */
  tunnel?: Tunnel
}

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
  const tunnel = carriers.tunnel ?? tunnelOf(mode === null ? 0 : linkModeFacts[mode].line)
  const tunnelled = picture?.via === 'tunnel' && mode !== null
  const shown = tunnelled
    ? throughTunnel(pictures, picture, tunnel, carriers.reservation)
    : besideData(pictures, picture)
  const payload = payloadOf(mode, carriers.tunnel)
  const sent = tunnelled ? sumOf(shown, ({ sent }) => sent) : NOTHING
  const fast: Pool = { mode, left: minus(payload, sent), loads: sent }
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
  let behind = NOTHING
  for (const crossed of inOrder) {
    if (isPicture(crossed)) continue
    const { need, usb2 } = crossed
    const admission = admitData(crossed, usb2 ? slow : fast, behind)
    admissions.push(admission)
    behind = plus(behind, admission.sent)
    if (need.kind !== 'storage') forStorage = fast.left
  }
  const streams = sumOf(
    admissions.filter(({ need, overUsb }) => (need.kind !== 'picture' || overUsb) && need.kind !== 'storage'),
    ({ sent }) => sent,
  )
  const controllers = inOrder.flatMap(({ controller }) => controller ?? [])
  const ofController = (taken: EachWay): EachWay =>
    controllers.reduce((least, controller) => leastOf(least, leftOf(controller, taken)), ANYTHING)
  return {
    admissions,
    mode,
    payload,
    forPictures: tunnelled ? tunnelFacts[tunnel].down * PICTURE_SHARE : null,
    forStorage: leastOf(floored(forStorage), ofController(streams)),
    idle: leastOf(floored(minus(payload, streams)), ofController(streams)),
    left: leastOf(floored(fast.left), ofController(behind)),
    compressible: tunnelled ? pictures.reduce((sum, crossed, at) => sum + squeezable(crossed, shown[at]), 0) : 0,
  }
}

/** What a link carries after coding. */
function payloadOf(mode: LinkMode | null, tunnel: Tunnel | undefined): EachWay {
  if (mode === null) return NOTHING
  const { payload } = linkModeFacts[mode]
  if (tunnel === undefined) return { down: payload, up: payload }
  const { down, up, payloadShare } = tunnelFacts[tunnel]
  return { down: down * payloadShare, up: up * payloadShare }
}

const sumOf = (admissions: readonly Admission[], rateOf: (admission: Admission) => EachWay): EachWay =>
  admissions.reduce((sum, each) => plus(sum, rateOf(each)), NOTHING)

const ONE_LANE = ['usb2', 'gen1x1', 'gen2x1'] as const satisfies LinkMode[]

/** What a picture on pins of its own leaves to the data (USB Type-C, pin assignments C and D, from memory). */
function modeBeside(crossings: readonly Crossed[], { mode, picture, onDataPins }: Carriers): LinkMode | null {
  if (mode === null || !onDataPins || picture?.via !== 'displayport' || !crossings.some(isPicture)) return mode
  if (picture.spec?.family === 'displayport' && picture.spec.lanes === 4) return 'usb2'
  return bestMode(ONE_LANE.filter((lane) => linkModeFacts[lane].line <= linkModeFacts[mode].line))
}

/** Wires that data shares: what is left of them each way, and what they carry already. */
type Pool = { mode: LinkMode | null; left: EachWay; loads: EachWay }

const sharedBehind = commonPractice('ports on one controller share what it carries')

/** Finds room for data, on the link and on the controller behind its port, and takes it from the pool where there is enough. */
function admitData(crossed: Crossed, pool: Pool, behind: EachWay): Admission {
  const { need, way, controller } = crossed
  const { mode } = pool
  const named = askedEachWay(crossed, mode)
  const facts = mode === null ? null : linkModeFacts[mode]
  // a data sheet that names the mark on the plug is held against the mark
  const scale = facts && namesLineRate(need) ? facts.line / facts.payload : 1
  const asked: EachWay = { down: named.down / scale, up: named.up / scale }
  const onLink = mode === null ? NOTHING : floored(pool.left)
  const found = controller ? leastOf(onLink, leftOf(controller, behind)) : onLink
  const [first = way, ...others] = WAYS.filter((each) => asked[each] > 0)
  // the way on which less is left of what is asked decides
  const tightest = others.reduce(
    (worse, each) => (found[each] * asked[worse] < found[worse] * asked[each] ? each : worse),
    first,
  )
  const byController = controller !== undefined && found[tightest] < onLink[tightest]
  const admitted = mode !== null && WAYS.every((each) => atLeast(found[each], asked[each]))
  const sent = admitted ? asked : NOTHING
  const before = byController ? plus(controller.before, behind) : pool.loads
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
    before: before[tightest] * scale,
    byController,
    carrier: byController
      ? { name: `the controller ${controller.name}`, source: sharedBehind }
      : facts && { name: facts.name, source: facts.source },
    spec: null,
    compressedBits: null,
  }
  pool.left = minus(pool.left, sent)
  pool.loads = plus(pool.loads, sent)
  return admission
}

/** What data asks of each way: storage is written along its own and read against it; on USB 2.0 both go over one pair. */
function askedEachWay({ need, way, overUsb }: Crossed, mode: LinkMode | null): EachWay {
  const along = overUsb ?? ('rate' in need ? need.rate : 0)
  const back = need.kind === 'storage' ? (need.back ?? need.rate) : 0
  if (mode === 'usb2') return { down: Math.max(along, back), up: Math.max(along, back) }
  return way === 'down' ? { down: along, up: back } : { down: back, up: along }
}
