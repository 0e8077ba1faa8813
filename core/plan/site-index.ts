import type { Cable, CableKind } from './cable'
import type { Device, Port } from './device'
import type { Need } from './need'
import type { Place, Plan } from './plan'
import type { PortAddress, Run } from './run'

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
  /** Runs that end at a device. */
  runsAt: ReadonlyMap<string, readonly Run[]>
  /** Runs that use a port, by `device/port`. */
  runsIn: ReadonlyMap<string, readonly Run[]>
  /** The run a cable lies in. */
  runOf: ReadonlyMap<string, Run>
}

export const portKey = (address: PortAddress): string => `${address.device}/${address.port}`

export function indexPlan(plan: Plan): SiteIndex {
  const runsAt = new Map<string, Run[]>()
  const runsIn = new Map<string, Run[]>()
  const runOf = new Map<string, Run>()
  // in the order of their ids, so that no answer depends on the order of the plan's lists
  for (const run of [...plan.runs].sort((one, other) => (one.id < other.id ? -1 : 1))) {
    for (const end of [run.from, run.to]) {
      listed(runsAt, end.device).push(run)
      listed(runsIn, portKey(end)).push(run)
    }
    for (const lead of run.leads) runOf.set(lead.cable, run)
  }
  return {
    plan,
    places: byId(plan.places),
    devices: byId(plan.devices),
    cables: byId(plan.cables),
    kinds: byId(plan.kinds),
    runs: byId(plan.runs),
    needs: byId(plan.needs),
    runsAt,
    runsIn,
    runOf,
  }
}

const byId = <T extends { id: string }>(list: readonly T[]): ReadonlyMap<string, T> =>
  new Map(list.map((item) => [item.id, item]))

function listed<T>(lists: Map<string, T[]>, key: string): T[] {
  const found = lists.get(key)
  if (found) return found
  const made: T[] = []
  lists.set(key, made)
  return made
}

/** The ports of a device that have a run in them, in the order of the runs' ids. */
export function portsInUse(index: SiteIndex, device: Device): Port[] {
  const used = device.ports.flatMap((port) => {
    const first = index.runsIn.get(portKey({ device: device.id, port: port.id }))?.[0]
    return first ? [{ port, run: first.id }] : []
  })
  return used.sort((one, other) => (one.run < other.run ? -1 : 1)).map(({ port }) => port)
}

/** The port at an address. A plan that was read has no dangling address, so a missing one is a fault in Hallway. */
export function socketAt(index: SiteIndex, address: PortAddress): Socket {
  const device = index.devices.get(address.device)
  const port = device?.ports.find((candidate) => candidate.id === address.port)
  if (!device || !port) throw new Error(`the plan has no port ${portKey(address)}`)
  return { device, port }
}
