import { z } from 'zod'
import { idField, lengthField, millimetresField, nameField, noteField, tagField } from './fields'

export const portAddressSchema = z.strictObject({ device: idField, port: idField })
export type PortAddress = z.output<typeof portAddressSchema>

const reversedField = z.boolean().default(false).describe('Its second end faces the host')
const runLeadSchema = z.union([
  z.strictObject({ cable: idField, reversed: reversedField }),
  z
    .strictObject({ kind: idField, length: lengthField, reversed: reversedField })
    .describe('One of the catalogue at a length, yet to be had'),
])

/** What a route passes that somebody must ask about, or take care of. */
export const SURROUNDINGS = [
  'wall',
  'ceiling',
  'riser',
  'conduit',
  'outdoors',
  'other-earth',
  'at-height',
  'play-area',
  'open-floor',
] as const
export type Surrounding = (typeof SURROUNDINGS)[number]

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
    through: z.array(z.enum(SURROUNDINGS)).max(9).optional().describe('What the route passes'),
    note: noteField.optional(),
  }),
  note: noteField.optional(),
})
export type Run = z.output<typeof runSchema>
export type RunLead = Run['leads'][number]
/** A lead that is yet to be had: one of a kind of the catalogue, at a length. */
export type LeadToBuy = Extract<RunLead, { kind: string }>

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
