import { z } from 'zod'
import { asNote, idField } from '../../vocabulary/fields'
import { everyObservation } from '../every'
import { kindOf } from './kind'

const schema = z.strictObject({
  ...everyObservation,
  kind: z.literal('retraction'),
  retracts: idField,
  reason: asNote(z.string().trim().min(1, 'a reason cannot be empty').max(300, 'a reason has at most 300 characters')),
})
export type Retraction = z.output<typeof schema>

/** An observation that proved wrong is not taken away: another says so, and why. It takes effect before anything is learnt (`countedOf`). */
export const retraction = kindOf({
  schema,
  teach() {},
  cannot: 'What it takes back stays in the record.',
  text: ({ reason }) => `taken back: ${reason}`,
  saidBy: () => 'a retraction',
})
