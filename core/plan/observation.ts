import { z } from 'zod'
import { CABLE_GRADES } from '../standards/grades'
import { LINK_MODES } from '../standards/link-modes'
import { ampsField, voltsField } from './cable'
import { idField, instantField, nameField, noteField, rateField, wattsField } from './fields'
import { pictureModeSchema } from './need'
import { portAddressSchema } from './run'

/** What an observation is about. A run is observed with the leads that lay in it then, in order. */
const subjectSchema = z.union([
  z.strictObject({ cable: idField }),
  z.strictObject({ run: idField, leads: z.array(idField).min(1).max(8) }),
  z.strictObject({ device: idField, port: idField.optional() }),
])
export type Subject = z.output<typeof subjectSchema>

/** The cable, run or device an observation is about, as the list it stands in and its id there. */
export function entityOf(subject: Subject): { list: 'cables' | 'runs' | 'devices'; id: string } {
  if ('cable' in subject) return { list: 'cables', id: subject.cable }
  return 'run' in subject ? { list: 'runs', id: subject.run } : { list: 'devices', id: subject.device }
}

/** Where it was taken: results belong to a controller, a computer and what was installed on it. */
const whereSchema = z.strictObject({
  controller: nameField.optional().describe('The controller it was tried on; left out where unknown'),
  port: portAddressSchema.optional(),
  computer: nameField.optional(),
  installed: nameField.optional().describe('System, firmware and driver, as they were'),
})

const everyObservation = {
  id: idField,
  at: instantField,
  by: nameField.optional().describe('Who saw it'),
  instrument: z
    .strictObject({ name: nameField, simulated: z.boolean().default(false) })
    .optional()
    .describe('What it was read with; left out: a person looked'),
  subject: subjectSchema,
  where: whereSchema.optional(),
  session: idField.optional().describe('The sort-out session it was taken in'),
  test: idField.optional().describe('The test of that session'),
  note: noteField.optional(),
}

/** What a listing, a mark, a supplied pairing or a chip says of a cable. Null: it was looked for, and there is none. */
export const STATEMENT_BASES = ['listed', 'claimed', 'supplied', 'chip'] as const
const statementSchema = z.strictObject({
  ...everyObservation,
  kind: z.literal('statement'),
  basis: z.enum(STATEMENT_BASES),
  grade: z.enum(CABLE_GRADES).nullable().optional(),
  amps: ampsField.nullable().optional(),
  volts: voltsField.nullable().optional(),
  words: z
    .array(z.string().regex(/^0x[0-9a-f]{8}$/))
    .max(6)
    .optional()
    .describe('The words of a chip as they were read'),
})
export type Statement = z.output<typeof statementSchema>

/** What kept a figure from being higher. Where it was not the lead, the reading is a lower bound for the lead. */
export const LIMITS = ['lead', 'disk', 'charger', 'display', 'unknown'] as const
export type Limit = (typeof LIMITS)[number]
const limitField = z.enum(LIMITS).optional()

/** What came up when a mode was tried, on a cable or a whole run. Null: nothing came up, or the link dropped. */
const trialSchema = z.strictObject({
  ...everyObservation,
  kind: z.literal('trial'),
  basis: z.enum(['measured', 'soaked']),
  tried: z.enum(LINK_MODES),
  cameUp: z.enum(LINK_MODES).nullable(),
  seconds: z.number().int().min(0).max(10_000_000).optional().describe('How long it was watched'),
})
export type TrialObservation = z.output<typeof trialSchema>

export const WARMTHS = ['cool', 'warm', 'hot'] as const
export type Warmth = (typeof WARMTHS)[number]

const everyReading = {
  ...everyObservation,
  kind: z.literal('reading'),
  with: nameField.optional().describe('The disk, charger or display it was measured with'),
  limit: limitField,
}
/** A figure read on the bench: a copy, a supply, a picture, the volts a lead loses, how warm its plugs get. */
const readingSchema = z.discriminatedUnion('measure', [
  z.strictObject({ ...everyReading, measure: z.literal('write'), rate: rateField }),
  z.strictObject({ ...everyReading, measure: z.literal('read'), rate: rateField }),
  z.strictObject({ ...everyReading, measure: z.literal('watts'), watts: wattsField.or(z.literal(0)) }),
  z.strictObject({
    ...everyReading,
    measure: z.literal('volts lost'),
    volts: z.number().min(0).max(50).describe('There and back'),
    amps: z.number().min(0).max(10),
  }),
  z.strictObject({
    ...everyReading,
    measure: z.literal('warmth'),
    felt: z.enum(WARMTHS),
    celsius: z.number().min(-40).max(200).optional(),
  }),
  z.strictObject({
    ...everyReading,
    measure: z.literal('picture'),
    mode: pictureModeSchema,
    held: z.boolean().describe('It was selectable, and stayed'),
  }),
])
export type Reading = z.output<typeof readingSchema>

/** What was seen when a fault was searched. */
const symptomSchema = z.strictObject({
  ...everyObservation,
  kind: z.literal('symptom'),
  saw: z.string().trim().min(1).max(500),
})

/** An observation that proved wrong is not taken away: another says so, and why. */
const retractionSchema = z.strictObject({
  ...everyObservation,
  kind: z.literal('retraction'),
  retracts: idField,
  reason: z.string().trim().min(1, 'a reason cannot be empty').max(300, 'a reason has at most 300 characters'),
})
export type Retraction = z.output<typeof retractionSchema>

/** The kinds of observation: adding one is adding its schema here, its fold in `core/observe` and its words in `observation-text`. */
export const observationSchema = z.discriminatedUnion('kind', [
  statementSchema,
  trialSchema,
  readingSchema,
  symptomSchema,
  retractionSchema,
])
export type Observation = z.output<typeof observationSchema>

/** An observation without what the moment of writing it down adds: its id, its instant, who wrote it, and its subject. */
export type Seen<T extends Observation = Observation> = T extends Observation
  ? Omit<T, 'id' | 'at' | 'by' | 'subject'>
  : never

/** What was tried of a lead: a link or a figure. */
export type Tried = TrialObservation | Reading
export const isTried = (observation: Observation): observation is Tried =>
  observation.kind === 'trial' || observation.kind === 'reading'
