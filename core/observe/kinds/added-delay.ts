import { z } from 'zod'
import { decimal } from '../../quantity/parsed'
import { basisNames } from '../basis'
import { everyReading } from '../every'
import { noteFigure } from '../learnt'
import { kindOf } from './kind'
import { readingWords } from './reading'

const schema = z.strictObject({
  ...everyReading,
  measure: z.literal('added delay'),
  ms: z.number().min(-1000).max(10_000).describe('Milliseconds more than the direct way'),
})

/** What a path adds to the delay, against the same devices joined directly. */
export const addedDelay = kindOf({
  schema,
  teach(learning, seen) {
    noteFigure(learning, seen, 'added delay', { ms: seen.ms })
    learning.last = { at: seen.at, words: `${decimal(seen.ms, 1)} ms more` }
  },
  cannot: 'Small differences are noise: measure both ways several times, in turn.',
  text: ({ ms, limit }) => readingWords('added delay', `${decimal(ms, 1)} ms`, limit),
  saidBy: () => basisNames.measured,
})
