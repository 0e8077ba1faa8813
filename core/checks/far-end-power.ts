import { z } from 'zod'
import { cordOf, mainsAt, needsMains } from '../link/mains'
import { atLeast } from '../quantity/limit'
import { commonPractice } from '../standards/source'
import { check, reason } from './check'
import { metresField } from './finding'
import { leadPart, portPart } from './situation'
import { cords, mains } from './situation-aspects'

const mainsFigure = z.enum(['there', 'none', 'not known'])
const mainsWords = {
  there: 'There is mains there.',
  none: 'There is no mains there.',
  'not known': 'Nobody has said yet whether there is mains there.',
} as const

/** What needs a supply of its own finds mains where it needs it: leads that are fed, and chargers, docks, powered hubs and extender ends. */
export const farEndPowerCheck = check({
  name: 'far-end power',
  reasons: {
    'far-end-power': reason(
      { required: z.boolean(), mains: mainsFigure, place: z.string() },
      ({ required, mains: there, place }, { label }) =>
        `${label} ${required ? 'needs' : 'may need'} its own supply at ${place}. ${mainsWords[there]}`,
    ),
    'device-mains': reason(
      { mains: mainsFigure, place: z.string() },
      ({ mains: there, place }, { label }) => `${label} needs a supply at ${place}. ${mainsWords[there]}`,
    ),
    'cord-too-short': reason(
      { cord: metresField, outlet: metresField, place: z.string() },
      ({ cord, outlet, place }, { label, metres }) =>
        `The cord of the supply of ${label} reaches ${metres(cord)}. The outlet at ${place} is ${metres(outlet)} away.`,
    ),
  },
  remedies: ['other-lead', 'mains-there'],
  reads: [mains, cords],
  source: commonPractice(
    'active leads and extenders with a supply of their own; many work without, plan for it where the device draws more',
  ),
  *find({ laid, index }) {
    for (const lead of laid.leads) {
      if (lead.cable.feed === 'bus') continue
      const end = lead.cable.feedEnd === 'host' ? laid.from : laid.to
      const there = mainsAt(index, end)
      const required = lead.cable.feed === 'required'
      const missing = required && there === 'none'
      yield {
        grade: missing ? 'blocked' : 'note',
        part: leadPart(lead),
        reason: { code: 'far-end-power', required, mains: there, place: placeName(index, end.device) },
        remedies: missing ? [{ code: 'other-lead' }] : [],
        caution: there === 'none' ? undefined : 'approved-supply',
      }
      const cord = cordOf(index, lead.cable)
      const outlet = index.places.get(end.device.place ?? '')?.outlet
      if (there === 'there' && cord !== undefined && outlet !== undefined && !atLeast(cord, outlet))
        yield {
          grade: 'tight',
          part: leadPart(lead),
          measured: { have: cord, need: outlet, unit: 'm' },
          reason: { code: 'cord-too-short', cord, outlet, place: placeName(index, end.device) },
          remedies: [{ code: 'mains-there' }],
          caution: 'approved-supply',
        }
    }
    for (const end of [laid.from, laid.to]) {
      const there = mainsAt(index, end)
      // a device that nobody has placed yet is not asked for its mains
      if (!needsMains(end.device) || there === 'there' || end.device.place === undefined) continue
      yield {
        grade: there === 'none' ? 'blocked' : 'note',
        part: portPart(end),
        reason: { code: 'device-mains', mains: there, place: placeName(index, end.device) },
        remedies: [{ code: 'mains-there' }],
        caution: 'approved-supply',
      }
    }
  },
})

const placeName = (
  { places }: Parameters<typeof mainsAt>[0],
  { place, name }: { place?: string | undefined; name: string },
): string => places.get(place ?? '')?.name ?? name
