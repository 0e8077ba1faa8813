import { z } from 'zod'
import { decimal } from '../../quantity/parsed'
import { basisNames } from '../basis'
import { everyReading } from '../every'
import { noteFigure } from '../learnt'
import { kindOf } from './kind'
import { readingWords } from './reading'

const schema = z.strictObject({
  ...everyReading,
  measure: z.literal('battery'),
  slope: z.number().min(-1000).max(1000).describe('Percent an hour: above 0 it gains'),
  low: z.number().min(-100_000).max(100_000).optional().describe('The least the slope may be, 95 % sure'),
  high: z.number().min(-100_000).max(100_000).optional(),
  hours: z.number().min(0).max(1000).describe('Hours it was followed'),
})

/** A battery that is followed within this holds: readouts say whole percent (common practice). */
export const HOLDS_WITHIN = 1

/** "gains 4.2 % an hour", "holds", "drains 11.3 % an hour". */
export function batteryWords(slope: number): string {
  if (Math.abs(slope) < HOLDS_WITHIN) return 'holds'
  return `${slope > 0 ? 'gains' : 'drains'} ${decimal(Math.abs(slope), 1)} % an hour`
}

/** A battery followed over hours while it was used. */
export const battery = kindOf({
  schema,
  teach(learning, seen) {
    const { slope, low, high, hours } = seen
    noteFigure(learning, seen, 'battery', { slope, low, high, hours })
    learning.last = { at: seen.at, words: batteryWords(seen.slope) }
  },
  cannot: 'It speaks of that use. A harder one drains more, and a nearly full battery gains little.',
  text: ({ slope, low, high, hours, limit }) =>
    readingWords(
      'battery',
      `${batteryWords(slope)}, over ${decimal(hours, 1)} h${low === undefined || high === undefined ? '' : ` (${decimal(low, 1)} to ${decimal(high, 1)})`}`,
      limit,
    ),
  saidBy: () => basisNames.measured,
})
