import { z } from 'zod'
import { everyObservation } from '../every'
import { kindOf } from './kind'

/** What was seen when a fault was searched. */
export const symptom = kindOf({
  schema: z.strictObject({ ...everyObservation, kind: z.literal('symptom'), saw: z.string().trim().min(1).max(500) }),
  teach() {},
  cannot: 'It does not say which part is to blame.',
  text: ({ saw }) => saw,
  saidBy: () => 'somebody who looked',
})
