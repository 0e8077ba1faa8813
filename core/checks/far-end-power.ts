import { z } from 'zod'
import { hasMains } from '../link/lay'
import { commonPractice } from '../standards/source'
import { check, reason } from './check'
import { leadPart } from './situation'

/** An active lead that needs a supply at its far end finds mains there. */
export const farEndPowerCheck = check({
  name: 'far-end power',
  reasons: {
    'far-end-power': reason(
      { required: z.boolean(), mains: z.boolean(), place: z.string() },
      ({ required, mains, place }, { label }) =>
        `${label} ${required ? 'needs' : 'may need'} its own supply at ${place}. There ${mains ? 'is mains' : 'is no mains'} there.`,
    ),
  },
  remedies: ['other-lead'],
  reads: [],
  source: commonPractice(
    'active leads and extenders with a supply of their own; many work without, plan for it where the device draws more',
  ),
  *find({ laid, index }) {
    const place = index.places.get(laid.to.device.place ?? '')
    const mains = hasMains(index, laid.to)
    for (const lead of laid.leads) {
      if (lead.cable.feed === 'bus') continue
      const required = lead.cable.feed === 'required'
      const missing = required && !mains
      yield {
        grade: missing ? 'blocked' : 'note',
        part: leadPart(lead),
        reason: { code: 'far-end-power', required, mains, place: place?.name ?? laid.to.device.name },
        remedies: missing ? [{ code: 'other-lead' }] : [],
        caution: mains ? 'approved-supply' : undefined,
      }
    }
  },
})
