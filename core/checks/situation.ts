import { namesLineRate, type SharedController } from '../link/admission'
import type { Doubt } from '../link/chain'
import { type DataLink, dataLink, hasUsb2Pair, nothingDoubted, type Trust } from '../link/data-link'
import { type LaidLead, type LaidRun, laidOnce } from '../link/lay'
import { type PictureLack, type PictureWay, pictureWay } from '../link/picture-link'
import { admit, type Uplink } from '../link/uplink'
import { wasTried } from '../observe/known'
import type { SiteIndex, Socket } from '../plan/site-index'
import { atMost } from '../quantity/limit'
import type { BitsPerSecond } from '../quantity/rate'
import type { Watts } from '../quantity/watts'
import { gradeFacts } from '../standards/grades'
import { linkModeFacts } from '../standards/link-modes'
import type { PictureEnds } from '../tunnel/tunnel'
import type { Device } from '../vocabulary/device'
import { busWatts, mostAsked, type Need } from '../vocabulary/need'
import type { Policy } from '../vocabulary/policy'
import type { Run } from '../vocabulary/run'
import type { LackFigures, Part } from './finding'

/** A need as it crosses one run. */
export type Crossing = {
  need: Need
  /** down: it flows from the run's host end to its far end. */
  way: 'down' | 'up'
  /** The run ends at the device that is powered over it; further up, docks and hubs have their own supply. */
  lastMile: boolean
  /** For a picture: what the ports along its whole way speak to each other, where they say so. */
  ends?: PictureEnds
  /** Hubs, docks and active extensions on its whole way. */
  hubs?: number
  /** Further down it comes up as USB 2.0: here it takes the pair of USB 2.0. */
  usb2?: boolean
  /** For a picture into a dock that makes it over plain USB: what it takes of the link as data. */
  overUsb?: BitsPerSecond
  /** For power: what hubs without a supply keep of it further on. */
  kept?: Watts
  /** For data: what needs of other runs take of the controller that this run hangs on. */
  controller?: SharedController
  /** For storage: the disk at its end, where it was described. */
  disk?: Device['disk']
}

/** Everything a check may look at: one run as it is laid, what comes up on it, and what crosses it. */
export type Situation = {
  index: SiteIndex
  policy: Policy
  laid: LaidRun
  crossings: readonly Crossing[]
  data: DataLink
  picture: PictureWay
  /** Faster data than USB 2.0 takes pins of the picture. */
  dataBeside: boolean
  uplink: Uplink
  /** The same by nothing but what may be relied on; null where nothing that was seen is doubted. */
  sure: Sure | null
}

type Sure = {
  data: DataLink
  uplink: Uplink
  /** What speaks against a picture whose lead failed or was tried in other sockets only. */
  doubt: Doubt | null
}

/** Whether what crosses as data is more than USB 2.0 carries, which a picture leaves free on pins of its own; only then does it cost two lanes. */
function isFastData(crossings: readonly Crossing[]): boolean {
  const { line, payload } = linkModeFacts.usb2
  const share = crossings.reduce(
    (sum, { need, overUsb }) => sum + (overUsb ?? mostAsked(need)) / (namesLineRate(need) ? line : payload),
    0,
  )
  return !atMost(share, 1)
}

export function situationOf(index: SiteIndex, run: Run, crossings: readonly Crossing[]): Situation {
  const { policy } = index.plan
  const laid = laidOnce(index, run)
  const believed = linksOf(laid, policy, crossings, 'believed')
  return { index, policy, laid, crossings, ...believed, sure: surelyOf(laid, policy, crossings, believed) }
}

/** A picture that goes as one over a run, and not as the data of a driver. */
export const showsPicture = ({ need, overUsb }: Crossing): boolean => need.kind === 'picture' && overUsb === undefined

type Links = Pick<Situation, 'data' | 'picture' | 'dataBeside' | 'uplink'>

function linksOf(laid: LaidRun, policy: Policy, crossings: readonly Crossing[], trust: Trust): Links {
  const data = dataLink(laid, policy, trust)
  const onDataPins = laid.from.port.connector === 'type-c' && laid.to.port.connector === 'type-c'
  const dataBeside = onDataPins && crossings.some(showsPicture) && isFastData(crossings)
  const picture = pictureWay(laid, data, { dataBeside, trust })
  const uplink = admit(crossings, {
    mode: data.mode,
    pair: crossings.some(({ usb2 }) => usb2) && hasUsb2Pair(laid, policy),
    picture: picture.link,
    onDataPins,
    // how a host reserves is a fact of its port where somebody knows it
    reservation: laid.from.port.reserves ?? policy.reservation,
  })
  return { data, picture, dataBeside, uplink }
}

/** What may be relied on where something was tried; what nobody tried is believed as it stands. */
function surelyOf(laid: LaidRun, policy: Policy, crossings: readonly Crossing[], believed: Links): Sure | null {
  const tried = laid.leads.find(({ known }) => wasTried(known))
  const seen = tried !== undefined || wasTried({ links: laid.seen.links, pictures: laid.seen.pictures })
  // what others of its kind did is doubted though nobody tried this one
  if (!seen && believed.data.doubt === null) return null
  const noPicture = crossings.every(({ need }) => need.kind !== 'picture')
  if (noPicture && nothingDoubted(laid)) return null
  const { data, picture, uplink } = linksOf(laid, policy, crossings, 'sure')
  const asBelieved =
    data.mode === believed.data.mode &&
    believed.data.doubt === null &&
    picture.link?.payload === believed.picture.link?.payload
  if (asBelieved) return null
  const doubt: Doubt | null = tried
    ? { lead: tried, why: 'elsewhere', held: 0, failed: 0, drops: false }
    : believed.data.doubt
  return { data, uplink, doubt }
}

export const portPart = (socket: Socket): Part => ({
  kind: 'port',
  id: `${socket.device.id}/${socket.port.id}`,
  label: `${socket.device.name}, ${socket.port.name}`,
})
/** A lead as a part; the own lead of a device is named with the port that it ends. */
export const leadPart = ({ cable, captive }: LaidLead): Part => ({
  kind: captive ? 'port' : 'lead',
  id: cable.id,
  label: cable.tag,
})
export const runPart = (run: Run): Part => ({ kind: 'run', id: run.id, label: run.tag })

export function lackFigures(lack: PictureLack): LackFigures {
  const { lead } = lack
  return {
    why: lack.why,
    mode: lack.mode,
    grade: lead.known.grade.value === null ? 'unknown' : gradeFacts[lead.known.grade.value].name,
    reach: 'reach' in lack ? lack.reach : null,
    length: lack.why === 'chain' ? lack.total : lead.cable.length,
    passive: lead.cable.construction === 'passive',
    unfed: lead.cable.feed !== 'bus' && lead.feeding === 'unfed',
    failed:
      lack.why === 'failed'
        ? { dropped: lack.trial.dropped === true, times: lack.trial.times, at: lack.trial.at }
        : null,
  }
}

/** The watts a need asks of this run: its own, or the bus power beside it where the run ends at the device. */
export function wantedWatts({ need, lastMile, kept = 0 }: Crossing): Watts | null {
  if (need.kind === 'power') return need.watts + kept
  return lastMile ? (busWatts(need) ?? null) : null
}
