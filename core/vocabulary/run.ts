import { z } from 'zod'
import { LONGEST_LENGTH } from '../quantity/length'
import {
  dayField,
  forAll,
  idField,
  lengthField,
  millimetresField,
  nameField,
  noteField,
  tagField,
  whyField,
} from './fields'
import { SURROUNDINGS } from './surroundings'

export const portAddressSchema = z.strictObject({ device: idField, port: idField })
export type PortAddress = z.output<typeof portAddressSchema>

const reversedField = z.boolean().default(false).describe('Its second end faces the host')
const runLeadSchema = z.union([
  z.strictObject({ cable: idField, reversed: reversedField }),
  z
    .strictObject({ kind: idField, length: lengthField, reversed: reversedField })
    .describe('One of the catalogue at a length, yet to be had'),
])

/** Legs of a route at most. */
export const MOST_LEGS = 200

/** One stretch of a route: what it goes along, and how far; straight across two sides where only these were measured. */
const legSchema = z.strictObject({
  by: forAll(z.string().trim().min(1, 'a leg says what it goes along').max(40)),
  length: z.number().min(0).max(LONGEST_LENGTH).describe('Metres'),
  across: z.number().min(0).max(LONGEST_LENGTH).optional().describe('The other side in metres, of a diagonal'),
  pathway: idField.optional().describe('The pathway it follows'),
})
export type Leg = z.output<typeof legSchema>

export const runSchema = z.strictObject({
  id: idField,
  tag: tagField,
  name: nameField.optional(),
  from: portAddressSchema.describe('The end nearer the host'),
  to: portAddressSchema,
  leads: z
    .array(runLeadSchema)
    .max(8, 'a run has at most 8 leads in series')
    .default([])
    .describe('Leads, extensions and adapters in series, from the host end on'),
  route: z.strictObject({
    length: lengthField,
    legs: z.array(legSchema).max(MOST_LEGS).optional().describe('The stretches that its length is the sum of'),
    follows: z
      .literal(true)
      .optional()
      .describe('It takes the shortest route over the pathways, and changes with them'),
    seen: dayField.optional().describe('The day it was measured on the site'),
    bend: millimetresField(1, 5000).optional().describe('The radius of its tightest bend in mm'),
    conduit: z
      .strictObject({
        inner: millimetresField(4, 300).describe('Its inner diameter in mm'),
        beside: z
          .array(millimetresField(0.5, 50))
          .max(60)
          .default([])
          .describe('Diameters in mm of the cables that lie in it already'),
      })
      .optional(),
    through: z.array(z.enum(SURROUNDINGS)).max(SURROUNDINGS.length).optional().describe('What the route passes'),
    note: noteField.optional(),
  }),
  waits: z
    .strictObject({ why: whyField, on: dayField })
    .optional()
    .describe('Accepted as it lies until a lead is sold that does more: what it waits for, and since when'),
  note: noteField.optional(),
})
export type Run = z.output<typeof runSchema>
export type RunLead = Run['leads'][number]
/** A lead that is yet to be had: one of a kind of the catalogue, at a length. */
export type LeadToBuy = Extract<RunLead, { kind: string }>

/** A route that is so long as somebody says, whatever it followed before. */
export function withLength(route: Run['route'], length: number): Run['route'] {
  const { legs: _, follows: __, ...rest } = route
  return { ...rest, length }
}

/** The pathways that a run follows, each once. */
export const pathwaysOf = ({ route }: Pick<Run, 'route'>): ReadonlySet<string> =>
  new Set((route.legs ?? []).flatMap(({ pathway }) => pathway ?? []))

/** The cables of the drawer that lie in a run. */
export const laidCables = ({ leads }: Pick<Run, 'leads'>): string[] =>
  leads.flatMap((lead) => ('cable' in lead ? lead.cable : []))

/** What a lead is called among the leads of a site: the id of its cable, or its kind and length, which no id looks like. */
export const leadKey = (lead: RunLead): string => ('cable' in lead ? lead.cable : `${lead.kind}@${lead.length}`)

/** The lead that `leadKey` named. */
export function leadFrom(key: string): RunLead {
  const at = key.lastIndexOf('@')
  return at < 0
    ? { cable: key, reversed: false }
    : { kind: key.slice(0, at), length: Number(key.slice(at + 1)), reversed: false }
}
