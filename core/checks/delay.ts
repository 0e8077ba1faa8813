import { z } from 'zod'
import { decimal } from '../quantity/parsed'
import { commonPractice } from '../standards/source'
import { check, reason } from './check'
import { runPart } from './situation'

/** Where an audio need says what delay it allows: what lies on the way that may add some, and how to measure it. No figure promises it beforehand. */
export const delayCheck = check({
  name: 'delay',
  reasons: {
    delay: reason(
      { allowed: z.number(), hubs: z.number() },
      ({ allowed, hubs }) =>
        `At most ${decimal(allowed, 2)} ms may be added; ${hubs === 0 ? 'no hub lies' : hubs === 1 ? '1 hub lies' : `${hubs} hubs lie`} on the way. Measure it beside a direct lead, with the same settings.`,
    ),
  },
  remedies: ['test-it'],
  reads: [],
  source: commonPractice(
    'an audio interface is judged by the delay it adds: the long run beside the direct one, same settings',
  ),
  *find({ laid, crossings }) {
    const isMeasured = laid.seen.figures.some(({ measure }) => measure === 'added delay')
    for (const { need, lastMile, hubs = 0 } of crossings) {
      if (need.kind !== 'audio' || need.delay === undefined || !lastMile || isMeasured) continue
      yield {
        grade: 'note',
        part: runPart(laid.run),
        needId: need.id,
        reason: { code: 'delay', allowed: need.delay, hubs },
        remedies: [{ code: 'test-it' }],
      }
    }
  },
})
