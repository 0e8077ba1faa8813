import { z } from 'zod'
import { decimal } from '../quantity/parsed'
import { commonPractice } from '../standards/source'
import { check, reason } from './check'
import { portPart } from './situation'

/** What a sensor asks beside its link at a voltage of its own comes over a plug of its maker's, or from a supply beside it; the bus brings 5 V. */
export const ownVoltageCheck = check({
  name: 'own voltage',
  reasons: {
    'own-voltage': reason(
      { volts: z.number(), feed: z.enum(['there', 'missing']).nullable() },
      ({ volts, feed }, { label }) =>
        `${label} also needs ${decimal(volts, 1)} V, which this run does not bring. ${feed === 'there' ? 'The supply for it is there.' : feed === 'missing' ? 'The supply for it is missing.' : 'Give it its own supply.'}`,
    ),
  },
  remedies: ['own-supply'],
  reads: [],
  source: commonPractice('sensors with a feed of their own'),
  *find({ laid, crossings }) {
    if ([laid.from, laid.to].every(({ port }) => port.connector === 'own')) return
    for (const { need, lastMile } of crossings) {
      if (need.kind !== 'sensor' || need.volts === undefined || !lastMile) continue
      yield {
        grade: need.feed === 'missing' ? 'blocked' : 'note',
        part: portPart(laid.to),
        needId: need.id,
        reason: { code: 'own-voltage', volts: need.volts, feed: need.feed ?? null },
        remedies: need.feed === 'there' ? [] : [{ code: 'own-supply', volts: need.volts }],
        caution: 'approved-supply',
      }
    }
  },
})
