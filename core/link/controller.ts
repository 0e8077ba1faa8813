import { type SiteIndex, socketAt } from '../plan/site-index'
import type { BitsPerSecond } from '../quantity/rate'
import type { PortAddress, Run } from '../vocabulary/run'
import type { Way } from './each-way'

/** A controller behind a port, where somebody said what it carries in all. */
export type Controller = {
  device: string
  name: string
  carries: BitsPerSecond
  /** Which way of the run leads away from it. */
  away: Way
}

/** The controller that a run hangs on: the one at its host end, else the one at its far end; null where nobody said what either carries. */
export const controllerOf = (index: SiteIndex, { from, to }: Run): Controller | null =>
  controllerAt(index, from, 'down') ?? controllerAt(index, to, 'up')

function controllerAt(index: SiteIndex, address: PortAddress, away: Way): Controller | null {
  // most devices say nothing of theirs
  if (index.devices.get(address.device)?.controllers === undefined) return null
  const { device, port } = socketAt(index, address)
  const named = port.controller?.toLowerCase()
  const found = device.controllers?.find(({ name }) => name.toLowerCase() === named)
  return found ? { ...found, device: device.id, away } : null
}

/** The runs that hang on the same controller as a run, itself among them; none where nobody said what it carries. */
export function besideOnController(index: SiteIndex, run: Run): Run[] {
  const own = controllerOf(index, run)
  if (!own) return []
  return (index.runsAt.get(own.device) ?? []).filter((other) => {
    const theirs = controllerOf(index, other)
    return theirs !== null && isSame(theirs, own)
  })
}

export const isSame = (one: Controller, other: Controller): boolean =>
  one.device === other.device && one.name === other.name
