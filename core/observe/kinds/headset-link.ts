import { z } from 'zod'
import { formatRate } from '../../quantity/rate'
import { rateField } from '../../vocabulary/fields'
import { basisNames } from '../basis'
import { everyReading } from '../every'
import { noteFigure } from '../learnt'
import { kindOf } from './kind'
import { readingWords } from './reading'

const schema = z.strictObject({ ...everyReading, measure: z.literal('headset link'), rate: rateField })

/** What a headset's own link test says. */
export const headsetLink = kindOf({
  schema,
  teach(learning, seen) {
    noteFigure(learning, seen, 'headset link', { rate: seen.rate })
    learning.last = { at: seen.at, words: formatRate(seen.rate) }
  },
  cannot: 'Some of these tests do not move with what should move them. Run it on a lead you know as well.',
  text: ({ rate, limit }) => readingWords('link test of the headset', formatRate(rate), limit),
  saidBy: () => basisNames.measured,
})
