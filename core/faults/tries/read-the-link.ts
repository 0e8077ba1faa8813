import { linkModeFacts } from '../../standards/link-modes'
import { BY_CHANCE } from '../cause'
import { showsOf } from '../causes'
import { lookOutcomes, type TryKind } from '../try'

/** What comes up between the two ends, read off the device list of the computer. */
export const readTheLink: TryKind = {
  *of({ planned }) {
    if (planned === null || planned === 'usb2') return
    yield {
      how: `Read in the device list what came up. Planned is ${linkModeFacts[planned].name}.`,
      minutes: 1,
      trouble: 0,
      outcomes: lookOutcomes(
        [
          { name: 'none', says: 'Nothing comes up', odds: (cause) => share(showsOf(cause)['not detected']) },
          { name: 'usb2', says: 'It comes up as USB 2.0', odds: (cause) => share(showsOf(cause)['usb2 only']) },
        ],
        { name: 'planned', says: 'It comes up as planned' },
      ),
    }
  },
}

/** Of both it may show no more than all. */
const share = (seen: number = BY_CHANCE): number => Math.min(0.95, seen)
