import { z } from 'zod'
import { idField, nameField, noteField, rateField, wattsField } from './fields'
import { pictureModeSchema } from './need'

/** One way in which what is asked of a site may grow. */
export const growthSchema = z.discriminatedUnion('what', [
  z.strictObject({ what: z.literal('pictures'), mode: pictureModeSchema }).describe('Every picture asks for this mode'),
  z
    .strictObject({ what: z.literal('display'), at: idField.describe('The dock it hangs on'), mode: pictureModeSchema })
    .describe('One more display behind a dock'),
  z
    .strictObject({ what: z.literal('power'), watts: wattsField })
    .describe('Every device that is charged asks for so much at least'),
  z
    .strictObject({ what: z.literal('rate'), kind: z.enum(['storage', 'headset', 'camera', 'data']), rate: rateField })
    .describe('Every need of the kind asks for this rate at least'),
])
export type Growth = z.output<typeof growthSchema>

/** A named upgrade that the site may have to survive: a faster decoder, a third display, a 240 W laptop. */
export const upgradeSchema = z.strictObject({
  id: idField,
  name: nameField,
  growth: z.array(growthSchema).min(1).max(8),
  note: noteField.optional(),
})
export type Upgrade = z.output<typeof upgradeSchema>
