import { commonPractice } from '../standards/source'
import { drivers } from './aspects'
import { check, reason } from './check'
import { portPart } from './situation'

/** A computer that takes no drivers needs devices that need none (common practice). */
export const driversCheck = check({
  name: 'drivers',
  reasons: {
    'no-drivers': reason({}, (_, { label }) => `${label} needs drivers, and none can be put on this computer.`),
  },
  remedies: ['no-drivers'],
  reads: [drivers],
  source: commonPractice('a host that takes no drivers needs an extender that needs none'),
  *find({ laid }) {
    if (laid.from.device.drivers !== 'takes none' || laid.to.device.drivers !== 'needs') return
    yield {
      grade: 'blocked',
      part: portPart(laid.to),
      reason: { code: 'no-drivers' },
      remedies: [{ code: 'no-drivers' }],
    }
  },
})
