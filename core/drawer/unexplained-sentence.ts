import type { Unexplained } from '../observe/unexplained'
import { addressOf, type SiteIndex, socketName } from '../plan/site-index'
import { formatBytesPerSecond } from '../quantity/rate'
import { formatWatts } from '../quantity/watts'
import { linkModeFacts } from '../standards/link-modes'

const sockets = (count: number): string => (count === 1 ? 'one socket' : `${count} sockets`)

/** What differs, that nothing explains it, and the one repeat that would settle it. */
export function unexplainedSentence(found: Unexplained, index: Pick<SiteIndex, 'devices'>): string {
  switch (found.code) {
    case 'mode': {
      const where = found.repeat ? `in ${socketName(index.devices, addressOf(found.repeat))}` : 'where it failed'
      return `Unexplained: ${linkModeFacts[found.mode].name} came up in ${sockets(found.held)} and failed in ${sockets(found.failed)}. Try it again ${where}, for 60 s, with nothing else changed.`
    }
    case 'copy': {
      const did = found.way === 'write' ? 'wrote' : 'read'
      return `Unexplained: it ${did} ${formatBytesPerSecond(found.least.rate)} at most in one place and ${formatBytesPerSecond(found.most.rate)} in another. Copy again in the slower one, with the same disk.`
    }
    case 'watts':
      return `Unexplained: it let ${formatWatts(found.least.watts)} through on one charger and ${formatWatts(found.most.watts)} on another. Measure the first again, with the same device.`
  }
}
