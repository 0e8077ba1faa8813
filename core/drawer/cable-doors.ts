import type { LackFigures } from '../checks/finding'
import { lackFigures } from '../checks/situation'
import { carriesAlone } from '../link/abilities'
import { type LaidLead, looseLead, oughtOf } from '../link/lay'
import { failures } from '../observe/came'
import { type SeenOfMode, saysOf, seenOfMode } from '../observe/links'
import { tallyOf } from '../observe/tally'
import type { SiteIndex } from '../plan/site-index'
import { LINK_MODES, type LinkMode } from '../standards/link-modes'
import type { Cable } from '../vocabulary/cable'

/** One rate as a door of a cable: whether it is open at the cable's length, and what the book and the bench say of it. */
export type CableDoor = {
  mode: LinkMode
  open: boolean
  /** Why it is shut. */
  lack: LackFigures | null
  /** Open only by the bench: the book does not promise it. */
  beyondBook: boolean
  /** In how many sockets it held, and in how many it failed; and the same of all tries together. */
  seen: Pick<SeenOfMode, 'held' | 'failed'> & { tries: { held: number; failed: number } }
}

/** What was seen of a rate that failed somewhere: by tries where it was tried in one socket, by sockets where in several. */
export function failedText({ held, failed, tries }: CableDoor['seen']): string {
  if (held + failed > 1) return `Failed in ${failed} of the ${held + failed} sockets it was tried in.`
  return tries.held > 0
    ? `Comes and goes: failed in ${tries.failed} of ${tries.held + tries.failed} tries.`
    : `Failed in ${tries.failed === 1 ? 'its one try' : `all ${tries.failed} tries`}.`
}

/** A cable at its own length before any run is thought of: every mode there is, open or shut, by the site's policy. */
export function cableDoors(index: SiteIndex, cable: Cable): CableDoor[] {
  const { policy } = index.plan
  const lead = looseLead(index, cable)
  const lackUnder = (length: typeof policy.length, mode: LinkMode) => {
    const { lack, doubt } = carriesAlone(lead, mode, { ...policy, length })
    // what failed in some socket cannot be promised of any
    return lack ?? (doubt && doubt.failed > 0 ? ({ why: 'doubted', lead, mode, doubt } as const) : null)
  }
  // one that ran hot is used for nothing
  const hot = lead.known.hot !== null
  return LINK_MODES.map((mode) => {
    const lack = lackUnder(policy.length, mode)
    const byTheBook = policy.length === 'book' ? lack : lackUnder('book', mode)
    return {
      mode,
      open: lack === null && !hot,
      lack: lack && lackFigures(lack),
      beyondBook: lack === null && byTheBook !== null && !hot,
      seen: seenOf(lead, mode),
    }
  })
}

function seenOf(lead: LaidLead, mode: LinkMode): CableDoor['seen'] {
  const { links } = lead.known
  const tried = oughtOf(lead)
  const { held, failed } = seenOfMode(links, mode, tried, null)
  const tally = tallyOf(links, (series) => saysOf(series, mode, tried))
  return { held, failed, tries: { held: tally.held, failed: failures(tally) } }
}
