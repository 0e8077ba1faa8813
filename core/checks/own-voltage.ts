import { commonPractice } from '../standards/source'
import type { Finding } from './finding'
import { type Check, portPart, type Situation } from './situation'

const source = commonPractice('sensors with a feed of their own')

/** What a sensor asks beside its link at a voltage of its own comes over a plug of its maker's, or from a supply beside it; the bus brings 5 V. */
export const ownVoltageCheck: Check = {
  name: 'current',
  *findings({ laid, crossings }: Situation): Iterable<Finding> {
    for (const { need, lastMile } of crossings) {
      if (need.kind !== 'sensor' || need.volts === undefined || !lastMile) continue
      const own = [laid.from, laid.to].every(({ port }) => port.connector === 'own')
      if (own) continue
      yield {
        check: 'current',
        grade: 'note',
        part: portPart(laid.to),
        needId: need.id,
        have: null,
        need: null,
        unit: null,
        reason: { code: 'own-voltage', volts: need.volts },
        remedies: [],
        source,
        caution: 'approved-supply',
      }
    }
  },
}
