import { z } from 'zod'
import { observationSchema } from '../observe/observation'
import { cableKindSchema, cableSchema } from './cable'
import { deviceSchema } from './device'
import { dayField, idField, nameField, noteField } from './fields'
import { fileField, floorSchema, heightField, pathwaySchema, spotSchema } from './floor'
import { upgradeSchema } from './growth'
import { needSchema } from './need'
import { defaultPolicy, policySchema } from './policy'
import { runSchema } from './run'
import { sessionSchema, soakSchema } from './session'

export const PLAN_FORMAT = 'hallway-plan'
export const PLAN_VERSION = 2

/** Photos kept with a place at most. */
export const MOST_PHOTOS = 12

export const placeSchema = z.strictObject({
  id: idField,
  name: nameField,
  mains: z.boolean().default(true).describe('Mains power within reach'),
  at: spotSchema.optional().describe('Where it is on a floor'),
  height: heightField.optional().describe('Metres above the floor at which its ports are; left out: 0.7'),
  area: z
    .strictObject({ width: z.number().min(0.2).max(50), depth: z.number().min(0.2).max(50) })
    .optional()
    .describe('A headset play area around it, in metres'),
  quiet: z.number().min(0).max(100).optional().describe('A chair stands here: the level in dB wanted at it'),
  seen: dayField.optional().describe('The day somebody was there and looked'),
  photos: z
    .array(z.strictObject({ file: fileField, note: z.string().max(200).optional() }))
    .max(MOST_PHOTOS, `a place keeps at most ${MOST_PHOTOS} photos`)
    .optional(),
  note: noteField.optional(),
})
export type Place = z.output<typeof placeSchema>

export const siteSchema = z.strictObject({
  id: idField,
  name: nameField,
  practice: z.boolean().default(false).describe('A site to practise on: what simulated instruments say counts'),
  putAway: z.boolean().default(false).describe('Done with, and kept: it is listed apart'),
  note: noteField.optional(),
})
export type Site = z.output<typeof siteSchema>

/** The lists of a plan, each of entities with ids. */
export const PLAN_LISTS = [
  'floors',
  'places',
  'pathways',
  'devices',
  'kinds',
  'cables',
  'runs',
  'needs',
  'upgrades',
  'sessions',
  'soaks',
  'observations',
] as const
export type PlanList = (typeof PLAN_LISTS)[number]

/** How many of each a site has at most. */
export const MOST: Readonly<Record<PlanList, number>> = {
  floors: 50,
  places: 2000,
  pathways: 5000,
  devices: 5000,
  kinds: 2000,
  cables: 20_000,
  runs: 10_000,
  needs: 20_000,
  upgrades: 50,
  sessions: 500,
  soaks: 2000,
  observations: 100_000,
}
const listOf = <T extends z.ZodType>(list: PlanList, schema: T) => z.array(schema).max(MOST[list]).default([])

/** One site at its three addresses: the rows of the database, the plan file on disk, the value `assess` computes on. */
export const planSchema = z.strictObject({
  format: z.literal(PLAN_FORMAT),
  version: z.literal(PLAN_VERSION),
  site: siteSchema,
  policy: policySchema.default(defaultPolicy),
  floors: listOf('floors', floorSchema),
  places: listOf('places', placeSchema),
  pathways: listOf('pathways', pathwaySchema),
  devices: listOf('devices', deviceSchema),
  kinds: listOf('kinds', cableKindSchema),
  cables: listOf('cables', cableSchema),
  runs: listOf('runs', runSchema),
  needs: listOf('needs', needSchema),
  upgrades: listOf('upgrades', upgradeSchema),
  sessions: listOf('sessions', sessionSchema),
  soaks: listOf('soaks', soakSchema),
  observations: listOf('observations', observationSchema),
})
export type Plan = z.output<typeof planSchema>

export const emptyPlan = (site: { id: string; name: string } & Partial<Site>): Plan => ({
  format: PLAN_FORMAT,
  version: PLAN_VERSION,
  site: siteSchema.parse(site),
  policy: defaultPolicy,
  floors: [],
  places: [],
  pathways: [],
  devices: [],
  kinds: [],
  cables: [],
  runs: [],
  needs: [],
  upgrades: [],
  sessions: [],
  soaks: [],
  observations: [],
})
