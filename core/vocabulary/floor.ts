import { z } from 'zod'
import { forAll, idField, millimetresField, nameField, noteField } from './fields'
import { SURROUNDINGS } from './surroundings'

/** Distances on a floor are kept to the millimetre, so that what was snapped together stays together. */
export const toMillimetre = (metres: number): number => Math.round(metres * 1000) / 1000
const coordinate = z.number().min(-5000).max(5000).transform(toMillimetre)
export const heightField = z.number().min(-50).max(200).transform(toMillimetre)

/** Where something stands on a floor, in metres from its corner: x to the right, y downward as on the drawing. */
export const spotSchema = z.strictObject({ floor: idField, x: coordinate, y: coordinate })
export type Spot = z.output<typeof spotSchema>

/** A file is called by its SHA-256. */
export const fileField = forAll(z.string().regex(/^[0-9a-f]{64}$/, 'a file is named by its SHA-256, 64 hex digits'))

/** A measured level of sound in dB, and at which distance in metres it was read. */
export const noiseSchema = z.strictObject({
  level: z.number().min(0).max(140),
  loaded: z.number().min(0).max(140).optional().describe('The level under load, where that is another'),
  distance: z.number().min(0.05).max(100),
})

export const floorSchema = z.strictObject({
  id: idField,
  name: nameField,
  level: z.number().min(-200).max(1000).transform(toMillimetre).default(0).describe('Height of its surface in metres'),
  drawing: z
    .strictObject({
      file: fileField,
      width: z.number().int().min(1).max(20_000).describe('Pixels'),
      height: z.number().int().min(1).max(20_000),
      metresPerPixel: z.number().min(1e-5).max(10),
    })
    .optional()
    .describe('The drawing that lies under it, to scale; its upper left corner is the corner of the floor'),
  note: noteField.optional(),
})
export type Floor = z.output<typeof floorSchema>

export const PATHWAY_KINDS = [
  'tray',
  'conduit',
  'trunking',
  'raised floor',
  'desk',
  'open floor',
  'drop',
  'riser',
] as const
export type PathwayKind = (typeof PATHWAY_KINDS)[number]

export const pathwayPointSchema = z.strictObject({
  ...spotSchema.shape,
  height: heightField.describe('Metres above the surface of its floor'),
})
export type PathwayPoint = z.output<typeof pathwayPointSchema>

/** Points of one pathway at most. */
export const MOST_POINTS = 200

/** A way a cable may take: a line through points, joined to whatever else has a point at the same spot. */
export const pathwaySchema = z.strictObject({
  id: idField,
  name: nameField,
  kind: z.enum(PATHWAY_KINDS),
  points: z.array(pathwayPointSchema).min(2, 'a pathway has two points at least').max(MOST_POINTS),
  inner: millimetresField(4, 300).optional().describe('The inner diameter in mm, where it is round'),
  free: z.number().min(1).max(1_000_000).optional().describe('The free cross-section in mm², where it is not round'),
  beside: z
    .array(millimetresField(0.5, 50))
    .max(60)
    .default([])
    .describe('Diameters in mm of the cables that lay in it before'),
  through: z.array(z.enum(SURROUNDINGS)).max(SURROUNDINGS.length).optional().describe('What it passes'),
  closed: z.boolean().default(false).describe('No lead may be laid in it'),
  note: noteField.optional(),
})
export type Pathway = z.output<typeof pathwaySchema>
