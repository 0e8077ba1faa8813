import { z } from 'zod'
import { asNote, dayField, idField, lengthField, nameField, noteField } from './fields'
import { fileField, heightField, spotSchema } from './floor'

/** Photos kept with a place at most. */
export const MOST_PHOTOS = 12

export const placeSchema = z.strictObject({
  id: idField,
  name: nameField,
  mains: z
    .union([z.boolean(), z.literal('not known')])
    .default(true)
    .describe('Mains power within reach: there, not there, or not known yet'),
  outlet: lengthField.optional().describe('From its ports to the nearest outlet, as a cord goes'),
  at: spotSchema.optional().describe('Where it is on a floor'),
  height: heightField.optional().describe('Metres above the floor at which its ports are; left out: 0.7'),
  area: z
    .strictObject({ width: z.number().min(0.2).max(50), depth: z.number().min(0.2).max(50) })
    .optional()
    .describe('A headset play area around it, in metres'),
  quiet: z.number().min(0).max(100).optional().describe('A chair stands here: the level in dB wanted at it'),
  seen: dayField.optional().describe('The day somebody was there and looked'),
  photos: z
    .array(z.strictObject({ file: fileField, note: asNote(z.string().max(200)).optional() }))
    .max(MOST_PHOTOS, `a place keeps at most ${MOST_PHOTOS} photos`)
    .optional(),
  note: noteField.optional(),
})
export type Place = z.output<typeof placeSchema>
