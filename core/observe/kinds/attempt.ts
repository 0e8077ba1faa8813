import { z } from 'zod'
import { forAll, idField, nameField } from '../../vocabulary/fields'
import { TRIES } from '../../vocabulary/search'
import { everyObservation } from '../every'
import { kindOf } from './kind'

const schema = z.strictObject({
  ...everyObservation,
  kind: z.literal('try'),
  search: idField,
  what: z.enum(TRIES),
  part: forAll(z.string().max(140))
    .optional()
    .describe('Which part it acted on, where it acts on one: a cable, or "device/port"'),
  outcome: forAll(z.string().trim().min(1).max(140)).describe('What came of it, by its name'),
  says: forAll(z.string().trim().min(1).max(300)).describe('The same in words'),
  with: nameField.optional().describe('What was put in: a cable, a port, a charger'),
  also: z.array(z.enum(TRIES)).max(5).optional().describe('What else was changed at once: then it proves less'),
})
export type AttemptObservation = z.output<typeof schema>

/** What was tried in a search for a fault, and what came of it. */
export const attempt = kindOf({
  schema,
  teach() {},
  cannot: 'One try tells one cause from another, and is no proof of either.',
  text: ({ says, with: put }) => (put ? `${says}, with ${put}` : says),
  saidBy: () => 'somebody who tried',
})
