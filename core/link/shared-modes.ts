import { type SiteIndex, socketAt } from '../plan/site-index'
import { LINK_MODES, type LinkMode, linkModeFacts } from '../standards/link-modes'
import type { PortAddress } from '../vocabulary/run'
import { portModes } from './port-modes'

/** The modes that both of two ports speak, the best first. */
export function sharedModes(index: SiteIndex, { from, to }: { from: PortAddress; to: PortAddress }): LinkMode[] {
  const [near, far] = [from, to].map((address) => portModes(socketAt(index, address).port))
  return LINK_MODES.filter((mode) => near?.has(mode) && far?.has(mode)).sort(
    (one, other) =>
      linkModeFacts[other].line - linkModeFacts[one].line || LINK_MODES.indexOf(other) - LINK_MODES.indexOf(one),
  )
}
