import { commonPractice } from '../standards/source'
import { otherInputs } from './aspects'
import { check, reason } from './check'
import { portPart } from './situation'

/** HDMI into a computer display gets a note where the site prefers DisplayPort; projectors and other screens have nothing else. */
export const displayInputCheck = check({
  name: 'display input',
  reasons: {
    'hdmi-to-display': reason(
      {},
      (_, { label }) =>
        `${label} is HDMI, and this display has DisplayPort too; straight DisplayPort is the surer way.`,
    ),
  },
  remedies: [],
  reads: [otherInputs],
  source: commonPractice('straight DisplayPort is the sure way to a computer display'),
  *find({ laid, policy }) {
    const { device, port } = laid.to
    if (policy.computerDisplays !== 'displayport' || device.kind !== 'display' || port.hdmi?.direction !== 'in') return
    if (!device.ports.some((other) => other.displayport?.direction === 'in')) return
    yield { grade: 'note', part: portPart(laid.to), reason: { code: 'hdmi-to-display' } }
  },
})
