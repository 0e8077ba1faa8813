import { type Learned, learnedOf } from '../observe/learned'
import type { Cable, CableKind } from '../vocabulary/cable'
import type { Device, Port } from '../vocabulary/device'
import type { Pathway } from '../vocabulary/floor'
import type { Need } from '../vocabulary/need'
import {
  type LeadToBuy,
  laidCables,
  leadKey,
  type PortAddress,
  pathwaysOf,
  type Run,
  type RunLead,
} from '../vocabulary/run'
import type { Session } from '../vocabulary/session'
import { manyBy, oneBy } from '../work/index-by'
import { byId } from './lookup'
import type { Place, Plan } from './plan'

/** A port with the device it belongs to. */
export type Socket = { device: Device; port: Port }

/** A plan with its references resolved once, so that every later question is a look-up. */
export type SiteIndex = {
  plan: Plan
  places: ReadonlyMap<string, Place>
  pathways: ReadonlyMap<string, Pathway>
  devices: ReadonlyMap<string, Device>
  cables: ReadonlyMap<string, Cable>
  kinds: ReadonlyMap<string, CableKind>
  runs: ReadonlyMap<string, Run>
  needs: ReadonlyMap<string, Need>
  /** Needs that begin or end at a device. */
  needsAt: ReadonlyMap<string, readonly Need[]>
  sessions: ReadonlyMap<string, Session>
  cablesOfKind: ReadonlyMap<string, readonly Cable[]>
  /** Runs that end at a device, in the order of the list. */
  runsAt: ReadonlyMap<string, readonly Run[]>
  /** Runs that use a port, by `device/port`. */
  runsIn: ReadonlyMap<string, readonly Run[]>
  /** The run a cable lies in. */
  runOf: ReadonlyMap<string, Run>
  /** Runs with a lead of a kind that is yet to be had, by the kind. */
  runsOfKind: ReadonlyMap<string, readonly Run[]>
  /** Runs that follow a pathway, in the order of the list. */
  runsAlong: ReadonlyMap<string, readonly Run[]>
  /** What was learnt of cables and runs from all that was observed. */
  learned: Learned
}

export const portKey = (address: PortAddress): string => `${address.device}/${address.port}`
export function addressOf(key: string): PortAddress {
  const [device = '', port = ''] = key.split('/')
  return { device, port }
}

/** "Bridge laptop, USB-C left". What is gone is named by its id. */
export function socketName(devices: ReadonlyMap<string, Device>, { device, port }: PortAddress): string {
  const found = devices.get(device)
  return `${found?.name ?? device}, ${found?.ports.find(({ id }) => id === port)?.name ?? port}`
}

/** The index of a plan. Each part is kept with the list it is of, so that after a change only what it touched is indexed again. */
export const indexPlan = (plan: Plan): SiteIndex => ({
  plan,
  places: byId(plan.places),
  pathways: byId(plan.pathways),
  devices: byId(plan.devices),
  cables: byId(plan.cables),
  kinds: byId(plan.kinds),
  runs: byId(plan.runs),
  needs: byId(plan.needs),
  needsAt: needsAt(plan.needs),
  sessions: byId(plan.sessions),
  cablesOfKind: cablesOfKind(plan.cables),
  runsAt: runsAt(plan.runs),
  runsIn: runsIn(plan.runs),
  runOf: runOf(plan.runs),
  runsOfKind: runsOfKind(plan.runs),
  runsAlong: runsAlong(plan.runs),
  learned: learnedOf(plan),
})

const needsAt = manyBy(({ from, to }: Need) => [from, to])
const runsAt = manyBy(({ from, to }: Run) => [from.device, to.device])
const runsIn = manyBy(({ from, to }: Run) => [portKey(from), portKey(to)])
const runOf = oneBy<Run>(laidCables)
const runsOfKind = manyBy(({ leads }: Run) => leads.flatMap((lead) => ('kind' in lead ? lead.kind : [])))
const runsAlong = manyBy<Run>(pathwaysOf)
const cablesOfKind = manyBy(({ kind }: Cable) => (kind ? [kind] : []))

/** Cables that came with a device, by the device. */
export const cablesSuppliedWith = manyBy(({ suppliedWith }: Cable) => (suppliedWith ? [suppliedWith] : []))

/** The devices of a plan by the place they stand at; those that stand nowhere yet under no name. In the order of the list. */
export const devicesByPlace = manyBy(({ place }: Device) => [place ?? ''])

/** The ports of a device that have a run in them. Who is served first is the order in which the device lists its ports. */
export const portsInUse = (index: SiteIndex, device: Device): Port[] =>
  device.ports.filter((port) => index.runsIn.has(portKey({ device: device.id, port: port.id })))

/** The runs that lie in one conduit or tray with a run, where what is in it is counted. */
export const sharesSection = (index: SiteIndex, run: Run): Run[] =>
  [...pathwaysOf(run)].flatMap((id) => {
    const pathway = index.pathways.get(id)
    return pathway?.inner === undefined && pathway?.free === undefined ? [] : [...(index.runsAlong.get(id) ?? [])]
  })

/** The port at an address. A plan that was read has no dangling address, so a missing one is a fault in Hallway. */
export function socketAt(index: SiteIndex, address: PortAddress): Socket {
  const device = index.devices.get(address.device)
  const port = device?.ports.find((candidate) => candidate.id === address.port)
  if (!device || !port) throw new Error(`the plan has no port ${portKey(address)}`)
  return { device, port }
}

const toBuy = new WeakMap<CableKind, Map<number, Cable>>()

/** A cable of a kind as it would be once it is bought: what its listing says is all that is known of it. The same kind and length is the same value. */
export function cableToBuy(kind: CableKind, length: number): Cable {
  const known = toBuy.get(kind) ?? new Map<number, Cable>()
  toBuy.set(kind, known)
  const found = known.get(length)
  if (found) return found
  const lead: LeadToBuy = { kind: kind.id, length, reversed: false }
  const { id, name: tag, ends, oneWay, construction, feed = 'bus', feedEnd, pair, passesBack, passesOn } = kind
  const made = {
    id: leadKey(lead),
    tag,
    kind: id,
    ends,
    oneWay,
    length,
    construction,
    feed,
    ...(feedEnd === undefined ? {} : { feedEnd }),
    ...(pair === undefined ? {} : { pair }),
    ...(passesBack === undefined ? {} : { passesBack }),
    ...(passesOn === undefined ? {} : { passesOn }),
    standing: 'drawer',
  } satisfies Cable
  known.set(length, made)
  return made
}

/** The cable that a lead of a run is. A plan that was read names none that is not there, so a missing one is a fault in Hallway. */
export function leadCable({ cables, kinds }: Pick<SiteIndex, 'cables' | 'kinds'>, lead: RunLead): Cable {
  if ('cable' in lead) {
    const cable = cables.get(lead.cable)
    if (cable) return cable
    throw new Error(`the plan has no cable ${lead.cable}`)
  }
  const kind = kinds.get(lead.kind)
  if (!kind) throw new Error(`the plan has no kind ${lead.kind}`)
  return cableToBuy(kind, lead.length)
}

/** What a kind costs at a length; null where it is not sold so, or nobody has said for how much. */
export const priceAt = (kind: CableKind, length: number): number | null =>
  kind.stock.find((each) => each.length === length)?.price ?? null
