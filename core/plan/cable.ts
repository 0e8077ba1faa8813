import { z } from 'zod'
import { CONNECTORS, GENDERS } from '../standards/connectors'
import { CABLE_GRADES, CONSTRUCTIONS } from '../standards/grades'
import { LINK_MODES } from '../standards/link-modes'
import {
  dayField,
  idField,
  lengthField,
  millimetresField,
  nameField,
  noteField,
  rateField,
  tagField,
  wattsField,
} from './fields'
import { pictureModeSchema } from './need'

const endSchema = z.strictObject({ connector: z.enum(CONNECTORS), gender: z.enum(GENDERS).default('plug') })
const endsSchema = z.tuple([endSchema, endSchema]).describe('The host end first on one-way leads')
const ampsField = z.literal([0, 3, 5]).describe('Current the lead is marked for; 0 carries no power')
const voltsField = z.literal([20, 50]).describe('50 for extended power range leads')

/** What a shop sells, and on what terms. */
export const cableKindSchema = z.strictObject({
  id: idField,
  name: nameField,
  ends: endsSchema,
  oneWay: z.boolean().default(false),
  construction: z.enum(CONSTRUCTIONS).default('passive'),
  grade: z.enum(CABLE_GRADES),
  amps: ampsField.optional(),
  volts: voltsField.optional(),
  stock: z
    .array(z.strictObject({ length: lengthField, price: z.number().min(0).max(1_000_000) }))
    .max(40)
    .default([])
    .describe("Lengths it is sold in, each with its price in the site's currency"),
  leadDays: z.number().int().min(0).max(365).optional().describe('Days from order to delivery'),
  returnDays: z
    .number()
    .int()
    .min(0)
    .max(365)
    .optional()
    .describe('Days within which it may be sent back; 0 for never'),
  note: noteField.optional(),
})
export type CableKind = z.output<typeof cableKindSchema>

/** What somebody or something says of a cable without having tried it. */
const statementSchema = z.strictObject({
  basis: z.enum(['claimed', 'supplied', 'chip']),
  on: dayField,
  grade: z.enum(CABLE_GRADES).optional(),
  amps: ampsField.optional(),
  volts: voltsField.optional(),
  words: z
    .array(z.string().regex(/^0x[0-9a-f]{8}$/))
    .max(6)
    .optional()
    .describe('The words of a chip as they were read'),
  note: noteField.optional(),
})

/** The sort-out session a reading was taken in, and the test of it. */
const taken = { session: idField.optional(), test: idField.optional() }

/** What came up when a mode was tried. Null: nothing came up, or the link dropped. */
export const trialSchema = z.strictObject({
  basis: z.enum(['measured', 'soaked']),
  on: dayField,
  tried: z.enum(LINK_MODES),
  cameUp: z.enum(LINK_MODES).nullable(),
  seconds: z.number().int().min(0).max(10_000_000).optional().describe('How long it was watched'),
  controller: nameField.optional().describe('The controller it was tried on; left out where unknown'),
  ...taken,
  note: noteField.optional(),
})
export type Trial = z.output<typeof trialSchema>

export const WARMTHS = ['cool', 'warm', 'hot'] as const
export type Warmth = (typeof WARMTHS)[number]

const reading = {
  basis: z.literal('measured'),
  on: dayField,
  with: nameField.optional().describe('The disk, charger or display it was measured with'),
  ...taken,
  note: noteField.optional(),
}
/** A figure read on the bench: a copy, a supply, a picture, the volts a lead loses, how warm its plugs get. */
export const readingSchema = z.discriminatedUnion('measure', [
  z.strictObject({ ...reading, measure: z.literal('write'), rate: rateField }),
  z.strictObject({ ...reading, measure: z.literal('read'), rate: rateField }),
  z.strictObject({ ...reading, measure: z.literal('watts'), watts: wattsField.or(z.literal(0)) }),
  z.strictObject({
    ...reading,
    measure: z.literal('volts lost'),
    volts: z.number().min(0).max(50).describe('There and back'),
    amps: z.number().min(0).max(10),
  }),
  z.strictObject({
    ...reading,
    measure: z.literal('warmth'),
    felt: z.enum(WARMTHS),
    celsius: z.number().min(-40).max(200).optional(),
  }),
  z.strictObject({
    ...reading,
    measure: z.literal('picture'),
    mode: pictureModeSchema,
    held: z.boolean().describe('It was selectable, and stayed'),
  }),
])
export type Reading = z.output<typeof readingSchema>

export const evidenceSchema = z.union([statementSchema, trialSchema, readingSchema])
export type Evidence = z.output<typeof evidenceSchema>
export const isTrial = (evidence: Evidence): evidence is Trial => 'tried' in evidence
export const isReading = (evidence: Evidence): evidence is Reading => 'measure' in evidence
/** Pieces of evidence that a cable keeps at most. */
export const MOST_EVIDENCE = 400

export const CABLE_STANDINGS = ['drawer', 'lent', 'retired'] as const

export const cableSchema = z.strictObject({
  id: idField,
  tag: tagField,
  kind: idField.optional(),
  ends: endsSchema,
  oneWay: z.boolean().default(false).describe('Carries from its first end to its second only'),
  length: lengthField,
  construction: z.enum(CONSTRUCTIONS).default('passive'),
  awg: z.number().min(0).max(40).optional().describe('Gauge of its supply conductors, where it is printed or known'),
  thickness: millimetresField(0.5, 50).optional().describe('Its diameter in mm'),
  feed: z
    .enum(['bus', 'optional', 'required'])
    .default('bus')
    .describe('Whether an active lead takes power of its own at its far end'),
  suppliedWith: idField.optional().describe('The device it came in the box of'),
  standing: z.enum(CABLE_STANDINGS).default('drawer'),
  evidence: z.array(evidenceSchema).max(MOST_EVIDENCE).default([]),
  note: noteField.optional(),
})
export type Cable = z.output<typeof cableSchema>
