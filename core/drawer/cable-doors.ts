import type { LackFigures } from '../checks/finding'
import { lackFigures } from '../checks/situation'
import { leadByItself } from '../link/abilities'
import { dataLack } from '../link/chain'
import { type Trial, trialOf } from '../observe/trials'
import type { Cable } from '../plan/cable'
import type { SiteIndex } from '../plan/site-index'
import { LINK_MODES, type LinkMode } from '../standards/link-modes'

/** One rate as a door of a cable: whether it is open at the cable's length, and what the book and the bench say of it. */
export type CableDoor = {
  mode: LinkMode
  open: boolean
  /** Why it is shut. */
  lack: LackFigures | null
  /** Open only by the bench: the book does not promise it. */
  beyondBook: boolean
  trial: { passed: boolean; trial: Trial } | null
}

/** A cable at its own length before any run is thought of: every mode there is, open or shut, by the site's policy. */
export function cableDoors(index: SiteIndex, cable: Cable): CableDoor[] {
  const { policy } = index.plan
  const lead = leadByItself(index, cable)
  return LINK_MODES.map((mode) => {
    const lack = dataLack([lead], mode, policy, undefined)
    const byTheBook = policy.length === 'book' ? lack : dataLack([lead], mode, { ...policy, length: 'book' }, undefined)
    return {
      mode,
      open: lack === null,
      lack: lack && lackFigures(lack),
      beyondBook: lack === null && byTheBook !== null,
      trial: trialOf(lead.known.trials, mode, undefined),
    }
  })
}
