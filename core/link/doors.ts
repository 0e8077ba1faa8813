import { type Basis, basisNames } from '../observe/basis'
import { markedWatts } from '../observe/known'
import { NOTHING_LEARNT } from '../observe/learnt'
import { basisOf } from '../observe/links'
import type { Here } from '../observe/spot'
import type { Socket } from '../plan/site-index'
import { givenWatts } from '../power/negotiate'
import type { Metres } from '../quantity/length'
import type { BitsPerSecond } from '../quantity/rate'
import type { Watts } from '../quantity/watts'
import { gradeFacts } from '../standards/grades'
import { bestMode, LINK_MODES, type LinkMode, linkModeFacts } from '../standards/link-modes'
import { displayPortLane, hdmiLink } from '../standards/picture-links'
import { fromMemory, type Source } from '../standards/source'
import type { NeedKind } from '../vocabulary/need'
import type { Policy } from '../vocabulary/policy'
import { carries } from './chain'
import type { DataLink } from './data-link'
import type { LaidLead, LaidRun } from './lay'
import { leadPicture } from './lead-picture'
import { type PictureLink, portPicture } from './picture-link'
import { portModes } from './port-modes'

/** One part of a run as a doorway: what it alone passes, at this length, of what the two ports speak. */
export type Door = {
  kind: 'port' | 'lead'
  id: string
  label: string
  /** What stands in the chamber: the port's name, or the lead's grade, construction and length. */
  detail: { text: string; length: number | null }
  data: { mode: LinkMode; rate: BitsPerSecond } | null
  picture: { name: string; rate: BitsPerSecond } | null
  watts: Watts
  /** Who says so. */
  saidBy: string
  source: Source
  /** For a lead: what it carries of what is asked, each with how far by the book, the furthest rate last. A port has no length. */
  reaches: readonly { name: string; rate: BitsPerSecond; reach: Metres }[]
}

/** The wider of what a door passes: the opening that the corridor draws. */
export const openingOf = (door: Door): BitsPerSecond => Math.max(door.data?.rate ?? 0, door.picture?.rate ?? 0)

const dataSheet = fromMemory('the data sheet as entered in the survey')

/** From a slow USB link to the widest there is. */
const LOWEST: BitsPerSecond = 100e6
const HIGHEST: BitsPerSecond = 100e9

/** How wide a rate is drawn, as a share of the widest: on a log scale, so that one decade is the same step everywhere. Below the slowest it is negative. */
export const widthShare = (rate: BitsPerSecond): number =>
  Math.min(1, Math.log(rate / LOWEST) / Math.log(HIGHEST / LOWEST))

/** What a door is asked to pass: pictures beside the data, data, or both. */
export type ToPass = { pictures: boolean; data: boolean }

/**
 * The doors of a run from the host port to the far port, each as wide as what it passes of what is asked of the run: a lead that could
 * also carry a picture is no wider for a disk.
 */
export function doorsOf(
  laid: LaidRun,
  data: DataLink,
  picture: PictureLink | null,
  policy: Policy,
  crossing: ReadonlySet<NeedKind>,
): Door[] {
  const fromModes = portModes(laid.from.port)
  const toModes = portModes(laid.to.port)
  const spoken =
    data.shared === null ? LINK_MODES : LINK_MODES.filter((mode) => fromModes.has(mode) && toModes.has(mode))
  const tunnelled = picture?.via === 'tunnel'
  const onlyPictures = crossing.has('picture') && [...crossing].every((kind) => kind === 'picture' || kind === 'power')
  const asked: ToPass = {
    pictures: !tunnelled && (crossing.has('picture') || data.shared === null),
    data: tunnelled || (data.shared !== null && !onlyPictures),
  }
  return [
    portDoor(laid.from, 'out', asked),
    ...laid.leads.map((lead) => leadDoor(lead, spoken, policy, laid.here, asked)),
    portDoor(laid.to, 'in', asked),
  ]
}

function portDoor(socket: Socket, direction: 'out' | 'in', asked: ToPass): Door {
  const { device, port } = socket
  const mode = asked.data ? bestMode(portModes(port)) : null
  const offer = asked.pictures ? portPicture(port, direction) : null
  const picture =
    offer === null
      ? null
      : offer.family === 'hdmi'
        ? { name: hdmiLink[offer.level].name, rate: hdmiLink[offer.level].payload }
        : {
            name: `DisplayPort ${displayPortLane[offer.displayport.link].name} x${offer.displayport.lanes}`,
            rate: displayPortLane[offer.displayport.link].payload * offer.displayport.lanes,
          }
  return {
    kind: 'port',
    id: `${device.id}/${port.id}`,
    label: device.name,
    detail: { text: port.name, length: null },
    data: mode && { mode, rate: linkModeFacts[mode].line },
    picture,
    watts:
      direction === 'out' ? Math.max(givenWatts(port), port.takes ?? 0) : Math.max(port.takes ?? 0, port.gives ?? 0),
    saidBy: 'its data sheet',
    source: dataSheet,
    reaches: [],
  }
}

function leadDoor(lead: LaidLead, spoken: readonly LinkMode[], policy: Policy, here: Here, asked: ToPass): Door {
  const alone = { leads: [lead], seen: NOTHING_LEARNT, here }
  const mode = asked.data
    ? bestMode(spoken.filter((candidate) => carries(alone, candidate, policy).lack === null))
    : null
  const { known, cable } = lead
  const row = lead.reach.data.find((candidate) => candidate.mode === mode)
  return {
    kind: 'lead',
    id: cable.id,
    label: cable.tag,
    detail: {
      text: `${known.grade.value === null ? 'nothing known' : gradeFacts[known.grade.value].name} ${cable.construction}`,
      length: cable.length,
    },
    data: mode && { mode, rate: linkModeFacts[mode].line },
    picture: asked.pictures ? leadPicture(lead) : null,
    watts: markedWatts(known),
    saidBy: basisNames[strongerBasis(lead, mode)],
    source: row?.source ?? dataSheet,
    reaches: reachesOf(lead, spoken, asked),
  }
}

function reachesOf({ reach }: LaidLead, spoken: readonly LinkMode[], asked: ToPass): Door['reaches'] {
  const data = asked.data ? reach.data.filter(({ mode }) => spoken.includes(mode)) : []
  const rows = [
    ...data.map(({ mode, reach: far }) => ({
      name: linkModeFacts[mode].name,
      rate: linkModeFacts[mode].line,
      reach: far,
    })),
    ...(asked.pictures
      ? [
          ...reach.displayport.map(({ mode, reach: far }) => ({
            name: `DisplayPort ${displayPortLane[mode].name}`,
            rate: displayPortLane[mode].payload * 4,
            reach: far,
          })),
          ...reach.hdmi.map(({ mode, reach: far }) => ({
            name: hdmiLink[mode].name,
            rate: hdmiLink[mode].payload,
            reach: far,
          })),
        ]
      : []),
  ]
  // of two that go as far only the faster matters
  return rows
    .filter((row) => !rows.some((other) => other.reach >= row.reach && other.rate > row.rate))
    .sort((one, other) => one.rate - other.rate)
}

/** Under the bench policy a trial may be what opens the door. */
function strongerBasis(lead: LaidLead, mode: LinkMode | null): Basis {
  const series = lead.known.links.find(({ cameUp }) => cameUp === mode && mode !== null)
  return series ? basisOf(series) : lead.known.grade.basis
}
