import type { KnownCable } from '../observe/known'
import { portKey, type SiteIndex, type Socket, socketAt } from '../plan/site-index'
import type { Metres } from '../quantity/length'
import { atLeast } from '../quantity/limit'
import { carriesUsb, type End, isLegacyUsb } from '../standards/connectors'
import type { CableGrade } from '../standards/grades'
import { bestMode, type LinkMode } from '../standards/link-modes'
import { type LeadReach, leadReach, leadShape, type Reach } from '../standards/reach'
import type { Cable } from '../vocabulary/cable'
import type { Port } from '../vocabulary/device'
import type { Run } from '../vocabulary/run'
import { portModes } from './port-modes'

/** A lead that a device has of its own, as a lead of a run: its metres count in span and reach like those of any other. */
export type Captive = { cable: Cable; known: KnownCable; reach: LeadReach }

const byPort = new WeakMap<Port, Captive>()

/** The captive lead of a port; null where it has none, or nobody has said how long it is. */
export function captiveOf({ device, port }: Socket): Captive | null {
  const { captive } = port
  if (!captive) return null
  const found = byPort.get(port)
  if (found) return found
  const plug: End = { connector: port.connector, gender: 'plug', ...(port.ownPlug ? { ownPlug: port.ownPlug } : {}) }
  const inside: End = { connector: carriesUsb(port.connector) ? 'type-c' : port.connector, gender: 'plug' }
  const grade = captive.grade ?? gradeOfPort(port)
  const cable: Cable = {
    id: portKey({ device: device.id, port: port.id }),
    tag: `the own lead of ${device.name}`,
    ends: [plug, inside],
    oneWay: false,
    length: captive.length,
    construction: 'passive',
    feed: 'bus',
    standing: 'drawer',
    suppliedWith: device.id,
  }
  const stated = { basis: 'supplied', at: null } as const
  const known: KnownCable = {
    grade: { value: grade, ...stated },
    // what it was made for it carries
    amps: { value: 5, ...stated },
    volts: { value: 50, ...stated },
    unmarked: false,
    links: [],
    copies: [],
    pictures: [],
    watts: [],
    ohms: null,
    hot: null,
    conflicts: [],
  }
  const made = { cable, known, reach: asMade(leadReach(grade, 'passive', leadShape(cable.ends)), captive.length) }
  byPort.set(port, made)
  return made
}

/** A device that came with a lead works at the end of it: its own length is within its reach, whatever the tables have. */
function asMade({ data, displayport, hdmi }: LeadReach, length: Metres): LeadReach {
  const far = <T>(rows: readonly Reach<T>[]): Reach<T>[] =>
    rows.map((row) => (atLeast(row.reach, length) ? row : { ...row, reach: length }))
  return { data: far(data), displayport: far(displayport), hdmi: far(hdmi) }
}

const gradeByMode: Record<LinkMode, CableGrade> = {
  usb2: 'usb2',
  gen1x1: 'gen1',
  gen1x2: 'gen1',
  gen2x1: 'gen2',
  gen2x2: 'usb4-20',
  'tbt3-20': 'thunderbolt2',
  'usb4-20': 'usb4-20',
  'tbt3-40': 'thunderbolt3',
  'usb4-40': 'usb4-40',
  'usb4-80': 'usb4-80',
}

/** The grade that a captive lead has at least: what its own port speaks. */
function gradeOfPort(port: Port): CableGrade {
  const mode = bestMode(portModes(port))
  if (port.displayport && !isLegacyUsb(port.connector)) return 'dp80'
  if (port.hdmi) return 'hdmi-48'
  return mode === null ? 'charge-only' : gradeByMode[mode]
}

/** How much of a route the captive leads at its ends span themselves. */
export const captiveLength = (index: SiteIndex, { from, to }: Pick<Run, 'from' | 'to'>): Metres =>
  [from, to].reduce((sum, end) => sum + (socketAt(index, end).port.captive?.length ?? 0), 0)

/** Whether a run can be plugged in as it is planned: all its leads are at hand, or a device's own lead spans it alone. */
export const isAtHand = (index: SiteIndex, { from, to, leads }: Run): boolean =>
  leads.every((lead) => 'cable' in lead) &&
  (leads.length > 0 || [from, to].some((end) => captiveOf(socketAt(index, end)) !== null))
