import { z } from 'zod'
import { everyObservation } from '../every'
import { kindOf } from './kind'

/** What somebody did with the leads of a run on the site. */
export const LAID = ['laid', 'taken out'] as const

/** A run was laid as it was then, or its leads were taken out. The later of the two counts. */
export const laid = kindOf({
  schema: z.strictObject({ ...everyObservation, kind: z.literal('laid'), what: z.enum(LAID) }),
  teach(learning, { what, at, by }) {
    learning.laid = what === 'laid' ? { at, by: by ?? null } : null
  },
  cannot: 'It lies there; whether it holds, a test tells.',
  text: ({ what, note }) => (note ? `${what}: ${note}` : what),
  saidBy: () => 'whoever laid it',
})
