import { z } from 'zod'
import { trialSchema } from './cable'
import { idField, lengthField, nameField, noteField, tagField } from './fields'

const portRefSchema = z.strictObject({ device: idField, port: idField })
export type PortAddress = z.output<typeof portRefSchema>

const runLeadSchema = z.strictObject({
  cable: idField,
  reversed: z.boolean().default(false).describe('Its second end faces the host'),
})

/** A trial of the whole chain as it lay: the leads it had then, in order. */
const proofSchema = trialSchema.extend({ leads: z.array(idField).min(1).max(8) })

export const runSchema = z.strictObject({
  id: idField,
  tag: tagField,
  name: nameField.optional(),
  from: portRefSchema.describe('The end nearer the host'),
  to: portRefSchema,
  leads: z
    .array(runLeadSchema)
    .max(8, 'a run has at most 8 leads in series')
    .default([])
    .describe('Leads, extensions and adapters in series, from the host end on'),
  route: z.strictObject({ length: lengthField, note: noteField.optional() }),
  proofs: z.array(proofSchema).max(100).default([]),
  note: noteField.optional(),
})
export type Run = z.output<typeof runSchema>
export type RunLead = Run['leads'][number]
