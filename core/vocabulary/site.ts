import { z } from 'zod'
import { idField, nameField, noteField } from './fields'

export const siteSchema = z.strictObject({
  id: idField,
  name: nameField,
  practice: z.boolean().default(false).describe('A site to practise on: what simulated instruments say counts'),
  putAway: z.boolean().default(false).describe('Done with, and kept: it is listed apart'),
  note: noteField.optional(),
})
export type Site = z.output<typeof siteSchema>
