import { looseLead, oughtOf } from '../../../core/link/lay'
import { portModes } from '../../../core/link/port-modes'
import type { Subject } from '../../../core/observe/every'
import type { Unwritten } from '../../../core/observe/observation'
import { parseSaid, parseSeen, type SeenContext } from '../../../core/observe/seen-text'
import { type SiteIndex, socketAt } from '../../../core/plan/site-index'
import type { Parsed } from '../../../core/quantity/parsed'
import { bestMode, LINK_MODES, type LinkMode } from '../../../core/standards/link-modes'
import type { PortAddress } from '../../../core/vocabulary/run'

/** Reads a line about a thing: of a kind what is said of it, of anything else what was seen. */
export const readSeen = (subject: Subject, line: string, context: SeenContext): Parsed<Unwritten[]> =>
  'kind' in subject ? parseSaid(line) : parseSeen(line, context)

/** What could have come up where something was seen: between these two ports, or in this one; of a lead by itself what it ought to do. */
export function contextFor(index: SiteIndex, subject: Subject, from?: PortAddress, to?: PortAddress): SeenContext {
  const sides = [from, to].flatMap((address) => (address ? [portModes(socketAt(index, address).port)] : []))
  const spoken = sides.length === 0 ? [] : LINK_MODES.filter((mode) => sides.every((side) => side.has(mode)))
  const ids = 'cable' in subject ? [subject.cable] : 'run' in subject ? subject.leads : []
  const leads = ids.flatMap((id) => index.cables.get(id) ?? []).map((cable) => oughtOf(looseLead(index, cable)).ought)
  const ought = (modes: readonly LinkMode[]): LinkMode | null =>
    leads.length === 0 ? null : bestMode(modes.filter((mode) => leads.every((lead) => lead(mode))))
  if (spoken.length > 0) return { spoken, expected: bestMode(spoken), ought: ought(spoken) }
  return { spoken: [], expected: ought(LINK_MODES), ought: ought(LINK_MODES) }
}
