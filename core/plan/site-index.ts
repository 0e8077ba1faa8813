import { type Learned, learnedOf } from '../observe/learned'
import type { Cable, CableKind } from './cable'
import type { Device, Port } from './device'
import { byId, keptWith } from './lookup'
import type { Need } from './need'
import type { Place, Plan } from './plan'
import type { PortAddress, Run } from './run'
import type { Session } from './session'

/** A port with the device it belongs to. */
export type Socket = { device: Device; port: Port }

/** A plan with its references resolved once, so that every later question is a look-up. */
export type SiteIndex = {
  plan: Plan
  places: ReadonlyMap<string, Place>
  devices: ReadonlyMap<string, Device>
  cables: ReadonlyMap<string, Cable>
  kinds: ReadonlyMap<string, CableKind>
  runs: ReadonlyMap<string, Run>
  needs: ReadonlyMap<string, Need>
  sessions: ReadonlyMap<string, Session>
  cablesOfKind: ReadonlyMap<string, readonly Cable[]>
  /** Runs that end at a device, in the order of the list. */
  runsAt: ReadonlyMap<string, readonly Run[]>
  /** Runs that use a port, by `device/port`. */
  runsIn: ReadonlyMap<string, readonly Run[]>
  /** The run a cable lies in. */
  runOf: ReadonlyMap<string, Run>
  /** What was learnt of cables and runs from all that was observed. */
  learned: Learned
}

export const portKey = (address: PortAddress): string => `${address.device}/${address.port}`

/** The index of a plan. Each part is kept with the list it is of, so that after a change only what it touched is indexed again. */
export const indexPlan = (plan: Plan): SiteIndex => ({
  plan,
  places: byId(plan.places),
  devices: byId(plan.devices),
  cables: byId(plan.cables),
  kinds: byId(plan.kinds),
  runs: byId(plan.runs),
  needs: byId(plan.needs),
  sessions: byId(plan.sessions),
  cablesOfKind: cablesOfKind(plan.cables),
  ...joinsOf(plan.runs),
  learned: learnedOf(plan),
})

type Joins = Pick<SiteIndex, 'runsAt' | 'runsIn' | 'runOf'>

const joinsOf = keptWith((runs: Plan['runs']): Joins => {
  const runsAt = new Map<string, Run[]>()
  const runsIn = new Map<string, Run[]>()
  const runOf = new Map<string, Run>()
  for (const run of runs) {
    for (const end of [run.from, run.to]) {
      listed(runsAt, end.device).push(run)
      listed(runsIn, portKey(end)).push(run)
    }
    for (const lead of run.leads) runOf.set(lead.cable, run)
  }
  return { runsAt, runsIn, runOf }
})

/**
 * Tells how runs join where a list of runs was made from another by changing some in place between the same ports, which is most of what is changed of
 * runs. Of anything else the joins are worked out when they are asked for.
 */
export function joinsAgain(before: Plan['runs'], after: Plan['runs']): void {
  const known = joinsOf.known(before)
  if (!known || before === after || before.length !== after.length) return
  const replaced = new Map<Run, Run>()
  for (const [at, run] of after.entries()) {
    const was = before[at]
    if (was === run || !was) continue
    if (was.id !== run.id || portKey(was.from) !== portKey(run.from) || portKey(was.to) !== portKey(run.to)) return
    replaced.set(was, run)
  }
  const runsAt = new Map(known.runsAt)
  const runsIn = new Map(known.runsIn)
  const runOf = new Map(known.runOf)
  const swap = (lists: Map<string, readonly Run[]>, key: string): void => {
    lists.set(
      key,
      (lists.get(key) ?? []).map((run) => replaced.get(run) ?? run),
    )
  }
  for (const [was, run] of replaced) {
    for (const end of [run.from, run.to]) {
      swap(runsAt, end.device)
      swap(runsIn, portKey(end))
    }
    for (const { cable } of was.leads) if (runOf.get(cable) === was) runOf.delete(cable)
  }
  for (const run of replaced.values()) for (const { cable } of run.leads) runOf.set(cable, run)
  joinsOf.keep(after, { runsAt, runsIn, runOf })
}

const cablesOfKind = keptWith((cables: Plan['cables']): ReadonlyMap<string, readonly Cable[]> => {
  const kinds = new Map<string, Cable[]>()
  for (const cable of cables) if (cable.kind) listed(kinds, cable.kind).push(cable)
  return kinds
})

function listed<T>(lists: Map<string, T[]>, key: string): T[] {
  const found = lists.get(key)
  if (found) return found
  const made: T[] = []
  lists.set(key, made)
  return made
}

/** The ports of a device that have a run in them. Who is served first is the order in which the device lists its ports. */
export const portsInUse = (index: SiteIndex, device: Device): Port[] =>
  device.ports.filter((port) => index.runsIn.has(portKey({ device: device.id, port: port.id })))

/** The port at an address. A plan that was read has no dangling address, so a missing one is a fault in Hallway. */
export function socketAt(index: SiteIndex, address: PortAddress): Socket {
  const device = index.devices.get(address.device)
  const port = device?.ports.find((candidate) => candidate.id === address.port)
  if (!device || !port) throw new Error(`the plan has no port ${portKey(address)}`)
  return { device, port }
}
