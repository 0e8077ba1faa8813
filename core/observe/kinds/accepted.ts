import { z } from 'zod'
import { asNote, forAll, noteField } from '../../vocabulary/fields'
import { restsField } from '../../vocabulary/rests'
import { everyObservation } from '../every'
import { kindOf } from './kind'

/** What somebody said of a run once it was tested. */
export const ACCEPTANCE = ['accepted', 'withdrawn'] as const

/** A run was accepted as it lies: after all its tests, or with less and the reason why. The later of two counts. */
export const accepted = kindOf({
  schema: z.strictObject({
    ...everyObservation,
    kind: z.literal('accepted'),
    what: z.enum(ACCEPTANCE),
    less: asNote(z.string().max(2000, 'a note has at most 2000 characters'), { decides: true })
      .optional()
      .describe('Why it is accepted with less than its tests ask for'),
    waived: z
      .array(forAll(z.string().min(1).max(200)))
      .max(200)
      .optional()
      .describe('The tests that had not passed and were not asked for any more, each by what tells it from the others'),
    rests: restsField,
    conditions: noteField.optional().describe('What it may be used for, and under which conditions'),
  }),
  teach(learning, seen) {
    const { what, at, by, less, conditions, waived, rests } = seen
    learning.accepted =
      what === 'accepted'
        ? {
            at,
            by: by ?? null,
            less: less ?? null,
            conditions: conditions ?? null,
            waived: waived ?? null,
            rests: rests ?? null,
          }
        : null
  },
  cannot: 'It stands for the run as it was: with another lead, or after an update, it is proved again.',
  text: ({ what, less, conditions, note }) =>
    [what, less && `with less: ${less}`, conditions, note].filter(Boolean).join(', '),
  saidBy: () => 'whoever accepted it',
})
