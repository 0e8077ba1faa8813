import { z } from 'zod'
import { asNote } from '../../vocabulary/fields'
import { everyObservation } from '../every'
import { kindOf } from './kind'

/** What people do about a lead or a run that failed, without putting another in its place. */
export const REMEDIES = ['reseated', 'turned', 'cleaned', 'restarted', 'driver', 'stale entries', 'other'] as const
export type SetRight = (typeof REMEDIES)[number]

export const remedyWords: Record<SetRight, string> = {
  reseated: 'plug pushed home',
  turned: 'lead turned round',
  cleaned: 'plug cleaned',
  restarted: 'restarted',
  driver: 'driver changed',
  'stale entries': 'stale entries removed',
  other: 'something was done about it',
}

/**
 * Somebody did something about it. What failed before then stays in the record and is no reason to refuse it; it begins anew, and three tries and a soak
 * decide.
 */
export const setRight = kindOf({
  schema: z.strictObject({
    ...everyObservation,
    kind: z.literal('set right'),
    what: z.enum(REMEDIES),
    words: asNote(z.string().trim().max(300)).optional().describe('What was done, in words'),
  }),
  teach(learning, { at, what }) {
    learning.setRight = { at, what: remedyWords[what] }
    learning.last = { at, words: remedyWords[what] }
  },
  cannot: 'It was done; whether it helped, three tries and a soak tell.',
  text: ({ what, words }) => (words ? `${remedyWords[what]}: ${words}` : remedyWords[what]),
  saidBy: () => 'whoever did it',
})
