import type { Here } from '../observe/spot'
import { fitPicture } from '../picture/fit'
import { type LinkSpec, linkFacts } from '../picture/link-spec'
import type { BitsPerSecond } from '../quantity/rate'
import { speaksTmds } from '../standards/connectors'
import { type LinkMode, linkModeFacts } from '../standards/link-modes'
import {
  DISPLAYPORT_LINKS,
  type DisplayPortLink,
  displayPortUpTo,
  HDMI_LEVELS,
  type HdmiLevel,
  hdmiUpTo,
} from '../standards/picture-links'
import type { Reach } from '../standards/reach'
import type { Source } from '../standards/source'
import { PICTURE_SHARE, type PictureEnds, tunnelSource } from '../tunnel/tunnel'
import type { Port } from '../vocabulary/device'
import type { PictureMode } from '../vocabulary/need'
import { convertsBackwards } from './adapter'
import { chainLack, type Lack } from './chain'
import type { DataLink, Trust } from './data-link'
import type { LaidLead, LaidRun } from './lay'
import { failedTrial, hdmiRows, pictureRows } from './lead-picture'

/** The picture side of a run: what is left of a picture's way once ports, leads and lengths have had their say. */
export type PictureLink = {
  payload: BitsPerSecond
  name: string
  /** A tunnel carries pictures beside the data; the others take pins or a cable of their own. */
  via: 'tunnel' | 'displayport' | 'hdmi'
  source: Source
  /** The narrowest link on the way; null for a tunnel, where each picture comes up at a step of its own. */
  spec: LinkSpec | null
  /** Every link that a picture passes one after the other, each with rules of its own; none in a tunnel. */
  stages: readonly LinkSpec[]
  /** Both ends can compress. */
  compression: boolean
}

export type PictureLack = Lack<DisplayPortLink> | Lack<HdmiLevel> | Lack<LinkMode>

/** What pictures get on a run, and what keeps them from the best its two ports share. */
export type PictureWay = {
  /** Null where no picture can pass. */
  link: PictureLink | null
  lack: PictureLack | null
}

/** Whether faster data than USB 2.0 travels on the very pins of the picture, and what is taken for granted of the leads. */
type Beside = { dataBeside: boolean; trust?: Trust }

type Family = 'displayport' | 'hdmi'
const leadFamily = (lead: LaidLead): Family =>
  lead.cable.ends.some((end) => speaksTmds(end.connector)) ? 'hdmi' : 'displayport'

/**
 * The link that pictures get from the host end to the far end.
 *
 * In a tunnel they share 90 % of the link. Otherwise each family on the way (DisplayPort, also as the alternate mode of
 * type-C; HDMI, also behind a converting lead) comes up at the best step all its parts carry at their lengths, and the
 * smaller payload decides. `dataBeside` says that faster data than USB 2.0 must travel on the same type-C pins, which leaves
 * two lanes for the picture (USB Type-C pin assignment D, from memory).
 */
export function pictureWay(laid: LaidRun, data: DataLink, { dataBeside, trust = 'believed' }: Beside): PictureWay {
  const { from, to, here } = laid
  // what this very run has shown it has shown of each of its leads
  const shown = laid.seen.pictures.map((picture) => ({ ...picture, spot: {} }))
  const leads =
    shown.length === 0
      ? laid.leads
      : laid.leads.map((lead) => ({ ...lead, known: { ...lead.known, pictures: [...lead.known.pictures, ...shown] } }))
  if (leads.length === 0) return { link: null, lack: null }
  if (data.mode && linkModeFacts[data.mode].tunnel) {
    const { line, name } = linkModeFacts[data.mode]
    const link: PictureLink = {
      payload: line * PICTURE_SHARE,
      name: `${name} tunnel`,
      via: 'tunnel',
      source: tunnelSource,
      spec: null,
      stages: [],
      compression: false,
    }
    return { link, lack: data.lack }
  }
  if (leads.some(convertsBackwards)) return { link: null, lack: null }
  const start = portPicture(from.port, 'out')
  const end = portPicture(to.port, 'in')
  if (!start || !end) {
    // without pins of their own they could only have come through a tunnel
    const onlyTunnel = data.shared !== null && linkModeFacts[data.shared].tunnel
    return { link: null, lack: onlyTunnel ? data.lack : null }
  }

  const families = new Set<Family>([start.family, end.family, ...leads.map(leadFamily)])
  const ways: PictureWay[] = []
  if (families.has('displayport')) {
    ways.push(displayPortWay([start, end], leads, dataBeside ? 2 : 4, here, trust))
  }
  if (families.has('hdmi')) ways.push(hdmiWay([start, end], leads, here, trust))
  const narrowest = ways.reduce((narrow, next) =>
    (next.link?.payload ?? 0) < (narrow.link?.payload ?? 0) ? next : narrow,
  )
  const stages = ways.flatMap(({ link }) => link?.stages ?? [])
  return narrowest.link ? { ...narrowest, link: { ...narrowest.link, stages } } : narrowest
}

function displayPortWay(
  sides: readonly Offered[],
  leads: readonly LaidLead[],
  mostLanes: 2 | 4,
  here: Here,
  trust: Trust,
): PictureWay {
  const offered = sides.flatMap((side) => (side.family === 'displayport' ? [side.displayport] : []))
  const shared = lowest(
    DISPLAYPORT_LINKS,
    offered.map((side) => side.link),
  )
  const { best, lack } = bestCarried(
    displayPortUpTo(shared),
    leads.filter((lead) => leadFamily(lead) === 'displayport'),
    (lead) => pictureRows(lead, here, trust),
  )
  const why = sayFailed(lack, here)
  if (best === null) return { link: null, lack: why }
  const lanes = Math.min(mostLanes, ...offered.map((side) => side.lanes)) as PictureEnds['lanes']
  return { link: linkOf({ family: 'displayport', link: best, lanes }, sides), lack: why }
}

/** A link that the lead's grade carries and its trials rule out is said to have failed. */
function sayFailed(lack: Lack<DisplayPortLink> | null, here: Here): Lack<DisplayPortLink> | null {
  if (lack === null) return null
  const { lead, mode } = lack
  if (lack.why !== 'grade' || !lead.reach.displayport.some((row) => row.mode === mode)) return lack
  const failed = failedTrial(lead, here)
  return failed ? { why: 'failed', lead, mode, trial: failed } : lack
}

function hdmiWay(sides: readonly Offered[], leads: readonly LaidLead[], here: Here, trust: Trust): PictureWay {
  const shared = lowest(
    HDMI_LEVELS,
    sides.flatMap((side) => (side.family === 'hdmi' ? [side.level] : [])),
  )
  const { best, lack } = bestCarried(
    hdmiUpTo(shared),
    leads.filter((lead) => leadFamily(lead) === 'hdmi'),
    (lead) => hdmiRows(lead, here, trust),
  )
  if (best === null) return { link: null, lack }
  return { link: linkOf({ family: 'hdmi', level: best }, sides), lack }
}

const linkOf = (spec: LinkSpec, sides: readonly Offered[]): PictureLink => ({
  ...linkFacts(spec),
  via: spec.family,
  spec,
  stages: [spec],
  compression: sides.every((side) => side.compression),
})

/**
 * What keeps a picture from the least step that would carry it, of those that both ports have: the lead that does not carry that step. `ports`: none of
 * their steps would.
 */
export function pictureLackFor(
  laid: LaidRun,
  mode: PictureMode,
  { compression, dataBeside }: { compression: boolean; dataBeside: boolean },
): PictureLack | 'ports' | null {
  const start = portPicture(laid.from.port, 'out')
  const end = portPicture(laid.to.port, 'in')
  if (!start || !end) return 'ports'
  const sides = [start, end]
  const families = new Set<Family>([start.family, end.family, ...laid.leads.map(leadFamily)])
  const ends = { compression: compression && sides.every((side) => side.compression) }
  let lack: PictureLack | null = null
  for (const family of families) {
    const leads = laid.leads.filter((lead) => leadFamily(lead) === family)
    const least = stepsOf(family, sides, dataBeside ? 2 : 4).find((spec) => fitPicture(mode, spec, ends).fits)
    if (!least) return 'ports'
    lack ??=
      least.family === 'hdmi'
        ? chainLack(
            leads,
            least.level,
            (lead) => hdmiRows(lead, laid.here, 'believed'),
            () => false,
          )
        : sayFailed(
            chainLack(
              leads,
              least.link,
              (lead) => pictureRows(lead, laid.here, 'believed'),
              () => false,
            ),
            laid.here,
          )
  }
  return lack
}

/** The steps of a family that both ports have, the least first. */
function stepsOf(family: Family, sides: readonly Offered[], mostLanes: 2 | 4): LinkSpec[] {
  if (family === 'hdmi')
    return hdmiUpTo(
      lowest(
        HDMI_LEVELS,
        sides.flatMap((side) => (side.family === 'hdmi' ? [side.level] : [])),
      ),
    ).map((level) => ({ family, level }))
  const offered = sides.flatMap((side) => (side.family === 'displayport' ? [side.displayport] : []))
  const lanes = Math.min(mostLanes, ...offered.map((side) => side.lanes)) as PictureEnds['lanes']
  return displayPortUpTo(
    lowest(
      DISPLAYPORT_LINKS,
      offered.map((side) => side.link),
    ),
  ).map((link) => ({ family, link, lanes }))
}

/** What a picture port offers; a type-C port of a charger or a disk offers nothing. */
export function portPicture(port: Port, direction: 'out' | 'in'): Offered | null {
  const { hdmi, displayport } = port
  if (hdmi?.direction === direction) return { family: 'hdmi', level: hdmi.level, compression: hdmi.compression }
  if (displayport?.direction !== direction) return null
  const { link, lanes, compression } = displayport
  return { family: 'displayport', displayport: { link, lanes }, compression }
}

export type Offered = { compression: boolean } & (
  | { family: 'displayport'; displayport: PictureEnds }
  | { family: 'hdmi'; level: HdmiLevel }
)

const lowest = <T>(ladder: readonly T[], steps: readonly T[]): T =>
  ladder[Math.min(ladder.length - 1, ...steps.map((step) => ladder.indexOf(step)))] as T

/** The highest step the leads carry, and what keeps them from the first one asked. */
function bestCarried<T>(
  upTo: readonly T[],
  leads: readonly LaidLead[],
  rowsOf: (lead: LaidLead) => readonly Reach<T>[],
): { best: T | null; lack: Lack<T> | null } {
  let lack: Lack<T> | null = null
  for (const step of [...upTo].reverse()) {
    const missing = chainLack(leads, step, rowsOf, () => false)
    if (missing === null) return { best: step, lack }
    lack ??= missing
  }
  return { best: null, lack }
}
