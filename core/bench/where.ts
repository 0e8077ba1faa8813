import type { Where } from '../observe/every'
import type { Unwritten } from '../observe/observation'
import { type SiteIndex, socketAt } from '../plan/site-index'
import type { Device } from '../vocabulary/device'
import type { PortAddress } from '../vocabulary/run'

/** Where something is seen, as the survey has it now: the sockets, the controller, the computer and what is installed on it, and on the device at the other end. */
export function whereAt(index: SiteIndex, from: PortAddress, to?: PortAddress): Where {
  const { device, port } = socketAt(index, from)
  const far = to && index.devices.get(to.device)
  return {
    computer: device.id,
    port: from,
    ...(to ? { far: to } : {}),
    ...(port.controller === undefined ? {} : { controller: port.controller }),
    ...(device.installed ? { installed: versionsOn(device.installed) } : {}),
    ...(far?.installed ? { farInstalled: versionsOn(far.installed) } : {}),
  }
}

/** Since when it is installed is told by the survey. */
const versionsOn = (installed: NonNullable<Device['installed']>): NonNullable<Where['installed']> =>
  installed.map(({ what, version }) => ({ what, version }))

/** What else is plugged into a computer by the plan, beside a run. */
export const devicesBeside = (index: SiteIndex, { device }: PortAddress, run?: string): Device[] =>
  (index.runsAt.get(device) ?? []).flatMap(({ id, from, to }) => {
    const other = index.devices.get(from.device === device ? to.device : from.device)
    return id === run || !other ? [] : [other]
  })

/** Devices named beside what was seen at most. */
const MOST_BESIDE = 12

/** The same as what may have mattered, unless somebody says otherwise. */
export function besideAt(index: SiteIndex, from: PortAddress, run?: string): NonNullable<Unwritten['circumstances']> {
  const beside = devicesBeside(index, from, run).map(({ name }) => name)
  return beside.length > 0 ? { beside: beside.slice(0, MOST_BESIDE) } : {}
}
