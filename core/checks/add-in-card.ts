import { z } from 'zod'
import { commonPractice } from '../standards/source'
import { check, reason } from './check'
import { portPart } from './situation'

/** A port on an add-in card gets a note. Where the site uses such ports only as a second choice, the run is tight. */
export const addInCardCheck = check({
  name: 'add-in card',
  reasons: {
    'on-add-in-card': reason({ avoided: z.boolean() }, ({ avoided }, { label }) =>
      avoided
        ? `${label} is on an add-in card, which this site uses only where no other port does it.`
        : `${label} is on an add-in card. Some technicians avoid them, others use one where board ports fail. This site goes by its own record.`,
    ),
  },
  remedies: ['other-port'],
  reads: [],
  source: commonPractice('add-in cards: practitioners disagree, and the record of the controllers at hand decides'),
  *find({ laid, policy }) {
    if (laid.from.port.sits !== 'add-in card') return
    const avoided = policy.addInCards === 'avoid'
    yield {
      grade: avoided ? 'tight' : 'note',
      part: portPart(laid.from),
      reason: { code: 'on-add-in-card', avoided },
      remedies: avoided ? [{ code: 'other-port' }] : [],
    }
  },
})
