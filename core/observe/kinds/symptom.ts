import { z } from 'zod'
import { asNote, idField } from '../../vocabulary/fields'
import { SYMPTOMS } from '../../vocabulary/search'
import { everyObservation } from '../every'
import { kindOf } from './kind'

const schema = z.strictObject({
  ...everyObservation,
  kind: z.literal('symptom'),
  saw: asNote(z.string().trim().min(1).max(500)),
  what: z.enum(SYMPTOMS).optional().describe('Which of the usual symptoms it is'),
  not: z.literal(true).optional().describe('Somebody looked for it, and it is not there'),
  search: idField.optional().describe('The search it was seen in'),
  line: asNote(z.string().max(300)).optional().describe('The line of a log or listing that it was read from'),
})
export type SymptomObservation = z.output<typeof schema>

/** What was seen when a fault was searched. */
export const symptom = kindOf({
  schema,
  teach() {},
  cannot: 'It does not say which part is to blame.',
  text: ({ saw, not }) => (not ? `not so: ${saw}` : saw),
  saidBy: ({ line }) => (line === undefined ? 'somebody who looked' : 'what the computer says'),
})
