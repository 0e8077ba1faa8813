import { commonPractice } from '../standards/source'
import type { Finding } from './finding'
import { type Check, runPart, type Situation } from './situation'

const source = commonPractice(
  'an audio interface is judged by the delay it adds: the long run beside the direct one, same settings',
)

/** Where an audio need says what delay it allows: what lies on the way that may add some, and how to measure it. No figure promises it beforehand. */
export const delayCheck: Check = {
  name: 'delay',
  *findings({ laid, crossings }: Situation): Iterable<Finding> {
    for (const { need, lastMile, hubs = 0 } of crossings) {
      if (need.kind !== 'audio' || need.delay === undefined || !lastMile) continue
      yield {
        check: 'delay',
        grade: 'note',
        part: runPart(laid.run),
        needId: need.id,
        have: null,
        need: null,
        unit: null,
        reason: { code: 'delay', allowed: need.delay, hubs },
        remedies: [{ code: 'test-it' }],
        source,
      }
    }
  },
}
