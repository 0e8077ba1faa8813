import { z } from 'zod'
import { readingSpreadSchema } from '../series/instrument-lines'
import { INSTALLED } from '../vocabulary/device'
import { idField, instantField, nameField, noteField } from '../vocabulary/fields'
import { restsField } from '../vocabulary/rests'
import { portAddressSchema } from '../vocabulary/run'

/** What an observation is about. A run is observed with the leads that lay in it then, in order; one that only a device's own lead spans has none. */
const subjectSchema = z.union([
  z.strictObject({ cable: idField }),
  z.strictObject({ run: idField, leads: z.array(idField).max(8) }),
  z.strictObject({ device: idField, port: idField.optional() }),
  z.strictObject({ device: idField, controller: nameField }),
  z.strictObject({ kind: idField }),
])
export type Subject = z.output<typeof subjectSchema>

/** The entity an observation is about, as the list it stands in and its id there. */
export function entityOf(subject: Subject): { list: 'cables' | 'runs' | 'devices' | 'kinds'; id: string } {
  if ('cable' in subject) return { list: 'cables', id: subject.cable }
  if ('run' in subject) return { list: 'runs', id: subject.run }
  return 'kind' in subject ? { list: 'kinds', id: subject.kind } : { list: 'devices', id: subject.device }
}

const installedField = z.array(z.strictObject({ what: z.enum(INSTALLED), version: nameField })).max(20)

/**
 * Where it was seen, by reference: results belong to a socket, a controller, a computer and what was installed on it. Copied from the survey when it is
 * written down, so that it still says so when the survey has changed.
 */
export const whereSchema = z.strictObject({
  computer: idField.optional().describe('The device at the host end'),
  port: portAddressSchema.optional().describe('The socket of the host end'),
  far: portAddressSchema.optional().describe('The socket of the other end'),
  controller: nameField.optional().describe('The controller behind the socket; left out where unknown'),
  installed: installedField.optional().describe('What was installed on the computer then'),
  farInstalled: installedField.optional().describe('What was installed on the device at the other end then'),
})
export type Where = z.output<typeof whereSchema>

/** What else may have mattered. */
export const circumstancesSchema = z.strictObject({
  alone: z.boolean().optional().describe('Everything else was unplugged; false: what is usually there was plugged in'),
  hard: z.literal(true).optional().describe('Everything went on at once, as the plan has it'),
  beside: z.array(nameField).max(40).optional().describe('What else was plugged in'),
  adapters: z.array(nameField).max(8).optional().describe('Adapters in the path'),
  supply: nameField.optional().describe('The charger or supply that was used'),
  strangeSupply: z.literal(true).optional().describe('That supply came from elsewhere'),
  charge: z.number().min(0).max(100).optional().describe('How full the battery was, in percent'),
  refresh: z.number().min(10).max(480).optional().describe('The refresh in Hz'),
})

export const everyObservation = {
  id: idField,
  at: instantField,
  by: nameField.optional().describe('Who saw it'),
  instrument: z
    .strictObject({ name: nameField, simulated: z.boolean().default(false) })
    .optional()
    .describe('What it was read with; left out: a person looked'),
  subject: subjectSchema,
  where: whereSchema.optional(),
  circumstances: circumstancesSchema.optional(),
  session: idField.optional().describe('The sort-out session it was taken in'),
  test: idField.optional().describe('The test of that session'),
  note: noteField.optional(),
}

/** What kept a figure from being higher. Where it was not the lead, the reading is a lower bound for the lead. */
export const HELD_BACK_BY = ['lead', 'disk', 'charger', 'display', 'device', 'unknown'] as const
export type HeldBackBy = (typeof HELD_BACK_BY)[number]

export const everyReading = {
  ...everyObservation,
  kind: z.literal('reading'),
  with: nameField.optional().describe('The disk, charger or display it was measured with'),
  limit: z.enum(HELD_BACK_BY).optional(),
  spread: readingSpreadSchema.optional().describe('How the readings lay that an instrument took of it'),
  series: idField.optional().describe('Where all of them are kept'),
  rests: restsField,
}
