import type { Policy } from '../plan/policy'
import { bestMode, isBetterMode, LINK_MODES, type LinkMode } from '../standards/link-modes'
import { dataLack, type Lack } from './chain'
import type { LaidRun } from './lay'
import { portModes } from './port-modes'

/** The USB or Thunderbolt mode a run comes up in, and what keeps it from the best its two ports share. */
export type DataLink = {
  mode: LinkMode | null
  /** The best mode both ports share; null where they have none in common. */
  shared: LinkMode | null
  /** Why `shared` does not come up; null where it does. */
  lack: Lack<LinkMode> | null
}

/**
 * The mode that comes up: the best one that the host port, every lead at its length and the far port all support. A run
 * with no lead yet comes up in nothing.
 */
export function dataLink(laid: LaidRun, policy: Policy): DataLink {
  const fromModes = portModes(laid.from.port)
  const toModes = portModes(laid.to.port)
  const common = LINK_MODES.filter((mode) => fromModes.has(mode) && toModes.has(mode))
  const shared = bestMode(common)
  if (shared === null || laid.leads.length === 0) return { mode: null, shared, lack: null }
  let mode: LinkMode | null = null
  let lack: Lack<LinkMode> | null = null
  for (const candidate of common) {
    const missing = dataLack(laid.leads, candidate, policy, laid.from.port.controller, laid.proofs)
    if (missing === null) {
      if (isBetterMode(candidate, mode)) mode = candidate
    } else if (candidate === shared) lack = missing
  }
  return { mode, shared, lack }
}
