import { z } from 'zod'
import { CONNECTORS, GENDERS } from '../standards/connectors'
import { CABLE_GRADES, CONSTRUCTIONS } from '../standards/grades'
import { LINK_MODES } from '../standards/link-modes'
import { dayField, idField, lengthField, millimetresField, nameField, noteField, tagField } from './fields'

const endSchema = z.strictObject({ connector: z.enum(CONNECTORS), gender: z.enum(GENDERS).default('plug') })
const endsSchema = z.tuple([endSchema, endSchema]).describe('The host end first on one-way leads')
const ampsField = z.literal([0, 3, 5]).describe('Current the lead is marked for; 0 carries no power')
const voltsField = z.literal([20, 50]).describe('50 for extended power range leads')

/** What a shop sells. */
export const cableKindSchema = z.strictObject({
  id: idField,
  name: nameField,
  ends: endsSchema,
  oneWay: z.boolean().default(false),
  construction: z.enum(CONSTRUCTIONS).default('passive'),
  grade: z.enum(CABLE_GRADES),
  amps: ampsField.optional(),
  volts: voltsField.optional(),
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
  note: noteField.optional(),
})

/** What came up when a mode was tried. Null: nothing came up, or the link dropped. */
export const trialSchema = z.strictObject({
  basis: z.enum(['measured', 'soaked']),
  on: dayField,
  tried: z.enum(LINK_MODES),
  cameUp: z.enum(LINK_MODES).nullable(),
  seconds: z.number().int().min(0).max(10_000_000).optional().describe('How long it was watched'),
  controller: nameField.optional().describe('The controller it was tried on; left out where unknown'),
  note: noteField.optional(),
})
export type Trial = z.output<typeof trialSchema>

export const evidenceSchema = z.union([statementSchema, trialSchema])
export type Evidence = z.output<typeof evidenceSchema>
export const isTrial = (evidence: Evidence): evidence is Trial =>
  evidence.basis === 'measured' || evidence.basis === 'soaked'

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
  evidence: z.array(evidenceSchema).max(200).default([]),
  note: noteField.optional(),
})
export type Cable = z.output<typeof cableSchema>
