import { commonPractice } from '../standards/source'
import type { Finding } from './finding'
import { type Check, portPart, type Situation } from './situation'

const source = commonPractice('add-in cards: practitioners disagree, and the record of the controllers at hand decides')

/** A port on an add-in card gets a note, or makes the run tight where the site uses such ports only as a second choice. */
export const addInCardCheck: Check = {
  name: 'add-in card',
  *findings({ laid, policy }: Situation): Iterable<Finding> {
    if (laid.from.port.sits !== 'add-in card') return
    const avoided = policy.addInCards === 'avoid'
    yield {
      check: 'add-in card',
      grade: avoided ? 'tight' : 'note',
      part: portPart(laid.from),
      have: null,
      need: null,
      unit: null,
      reason: { code: 'on-add-in-card', avoided },
      remedies: avoided ? [{ code: 'other-port' }] : [],
      source,
    }
  },
}
