import { z } from 'zod'
import { formatWatts } from '../../quantity/watts'
import { wattsField } from '../../vocabulary/fields'
import { basisNames } from '../basis'
import { everyReading } from '../every'
import { noteFigure } from '../learnt'
import { kindOf } from './kind'
import { readingWords } from './reading'

const schema = z.strictObject({ ...everyReading, measure: z.literal('watts'), watts: wattsField.or(z.literal(0)) })

/** 20 V with 5 % on top, at 3 A and at 5 A: only above these do watts prove 5 A, or more than 20 V (USB PD, from memory). */
const MOST_AT_3_A = 63
const MOST_AT_20_V = 105
/** From here on a battery takes less than it is offered (common practice). */
const NEARLY_FULL = 80

/** Watts that arrived: they went through, whatever kept them from being more. */
export const watts = kindOf({
  schema,
  teach(learning, seen) {
    const { at, circumstances } = seen
    if (seen.watts > MOST_AT_3_A) learning.amps.measured = { value: 5, at }
    if (seen.watts > MOST_AT_20_V) learning.volts.measured = { value: 50, at }
    noteFigure(learning, seen, 'watts', { watts: seen.watts }, (circumstances?.charge ?? 0) >= NEARLY_FULL)
    learning.last = { at, words: formatWatts(seen.watts) }
  },
  cannot:
    'It speaks of that charger with that device. A weak charger gives the same through any lead, and a full battery takes little.',
  text: (seen) => readingWords('watts', formatWatts(seen.watts), seen.limit),
  saidBy: () => basisNames.measured,
})
