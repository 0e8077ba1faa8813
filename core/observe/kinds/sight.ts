import { z } from 'zod'
import { asNote } from '../../vocabulary/fields'
import { basisNames } from '../basis'
import { everyReading } from '../every'
import { noteFigure } from '../learnt'
import { kindOf } from './kind'
import { readingWords } from './reading'

const schema = z.strictObject({
  ...everyReading,
  measure: z.literal('sight'),
  good: z.boolean().describe('It looked as it should'),
  saw: asNote(z.string().trim().max(300)).optional(),
})

/** What only eyes see: sparkles, flicker, a blurred picture. */
export const sight = kindOf({
  schema,
  teach(learning, seen) {
    noteFigure(learning, seen, 'sight', { good: seen.good })
    learning.last = { at: seen.at, words: seen.good ? 'looks right' : 'looks wrong' }
  },
  cannot: 'Eyes see what is there while they look.',
  text: ({ good, saw, limit }) =>
    readingWords('to the eye', `${good ? 'looks right' : 'looks wrong'}${saw ? `, ${saw}` : ''}`, limit),
  saidBy: () => basisNames.looks,
})
