import { hasMains } from '../link/lay'
import { commonPractice } from '../standards/source'
import type { Finding } from './finding'
import { type Check, leadPart, type Situation } from './situation'

const source = commonPractice(
  'active leads and extenders with a supply of their own; many work without, plan for it where the device draws more',
)

/** An active lead that needs a supply at its far end finds mains there. */
export const farEndPowerCheck: Check = {
  name: 'far-end power',
  *findings({ laid, index }: Situation): Iterable<Finding> {
    const place = index.places.get(laid.to.device.place ?? '')
    for (const lead of laid.leads) {
      if (lead.cable.feed === 'bus') continue
      const mains = hasMains(index, laid.to)
      const required = lead.cable.feed === 'required'
      yield {
        check: 'far-end power',
        grade: mains ? 'note' : required ? 'blocked' : 'note',
        part: leadPart(lead),
        have: null,
        need: null,
        unit: null,
        reason: { code: 'far-end-power', required, mains, place: place?.name ?? laid.to.device.name },
        remedies: mains || !required ? [] : [{ code: 'other-lead' }],
        source,
        caution: mains ? 'approved-supply' : undefined,
      }
    }
  },
}
