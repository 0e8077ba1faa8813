import { commonPractice } from '../standards/source'
import type { Finding } from './finding'
import { type Check, portPart, type Situation } from './situation'

const source = commonPractice('straight DisplayPort is the sure way to a computer display')

/** HDMI into a computer display gets a note where the site prefers DisplayPort; projectors and other screens have nothing else. */
export const displayInputCheck: Check = {
  name: 'display input',
  *findings({ laid, policy }: Situation): Iterable<Finding> {
    const { device, port } = laid.to
    if (policy.computerDisplays !== 'displayport' || device.kind !== 'display' || port.hdmi?.direction !== 'in') return
    if (!device.ports.some((other) => other.displayport?.direction === 'in')) return
    yield {
      check: 'display input',
      grade: 'note',
      part: portPart(laid.to),
      have: null,
      need: null,
      unit: null,
      reason: { code: 'hdmi-to-display' },
      remedies: [],
      source,
    }
  },
}
