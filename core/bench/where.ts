import type { Where } from '../observe/every'
import type { Unwritten } from '../observe/observation'
import { type SiteIndex, socketAt } from '../plan/site-index'
import type { PortAddress } from '../vocabulary/run'

/** Where something is seen, as the survey has it now: the sockets, the controller, the computer and what is installed on it. */
export function whereAt(index: SiteIndex, from: PortAddress, to?: PortAddress): Where {
  const { device, port } = socketAt(index, from)
  return {
    computer: device.id,
    port: from,
    ...(to ? { far: to } : {}),
    ...(port.controller === undefined ? {} : { controller: port.controller }),
    ...(device.installed ? { installed: device.installed.map(({ what, version }) => ({ what, version })) } : {}),
  }
}

/** Devices named beside what was seen at most. */
const MOST_BESIDE = 12

/** What else is plugged into the computer by the plan: what may have mattered, unless somebody says otherwise. */
export function besideAt(index: SiteIndex, from: PortAddress, run?: string): NonNullable<Unwritten['circumstances']> {
  const others = (index.runsAt.get(from.device) ?? []).filter(({ id }) => id !== run)
  const beside = others.flatMap(({ from: one, to }) => {
    const other = one.device === from.device ? to.device : one.device
    return index.devices.get(other)?.name ?? []
  })
  return beside.length > 0 ? { beside: beside.slice(0, MOST_BESIDE) } : {}
}
