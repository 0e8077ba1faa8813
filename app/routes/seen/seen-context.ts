import { looseLead, oughtOf } from '../../../core/link/lay'
import { portModes } from '../../../core/link/port-modes'
import type { Subject } from '../../../core/observe/every'
import type { SeenContext } from '../../../core/observe/seen-text'
import { type SiteIndex, socketAt } from '../../../core/plan/site-index'
import { bestMode, LINK_MODES } from '../../../core/standards/link-modes'
import type { PortAddress } from '../../../core/vocabulary/run'

/** What could have come up where something was seen: between these two ports, or in this one; of a lead by itself what it ought to do. */
export function contextFor(index: SiteIndex, subject: Subject, from?: PortAddress, to?: PortAddress): SeenContext {
  const sides = [from, to].flatMap((address) => (address ? [portModes(socketAt(index, address).port)] : []))
  const spoken = sides.length === 0 ? [] : LINK_MODES.filter((mode) => sides.every((side) => side.has(mode)))
  if (spoken.length > 0) return { spoken, expected: bestMode(spoken) }
  const cable = 'cable' in subject ? index.cables.get(subject.cable) : undefined
  const ought = cable && oughtOf(looseLead(index, cable)).ought
  return { spoken: [], expected: ought ? bestMode(LINK_MODES.filter(ought)) : null }
}
