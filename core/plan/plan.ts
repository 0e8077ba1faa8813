import { z } from 'zod'
import { cableKindSchema, cableSchema } from './cable'
import { deviceSchema } from './device'
import { idField, nameField, noteField } from './fields'
import { needSchema } from './need'
import { defaultPolicy, policySchema } from './policy'
import { runSchema } from './run'
import { sessionSchema } from './session'

export const PLAN_FORMAT = 'hallway-plan'
export const PLAN_VERSION = 1

export const placeSchema = z.strictObject({
  id: idField,
  name: nameField,
  mains: z.boolean().default(true).describe('Mains power within reach'),
  note: noteField.optional(),
})
export type Place = z.output<typeof placeSchema>

export const siteSchema = z.strictObject({ id: idField, name: nameField, note: noteField.optional() })
export type Site = z.output<typeof siteSchema>

/** One site at its three addresses: the rows of the database, the plan file on disk, the value `assess` computes on. */
export const planSchema = z.strictObject({
  format: z.literal(PLAN_FORMAT),
  version: z.literal(PLAN_VERSION),
  site: siteSchema,
  policy: policySchema.default(defaultPolicy),
  places: z.array(placeSchema).max(2000).default([]),
  devices: z.array(deviceSchema).max(5000).default([]),
  kinds: z.array(cableKindSchema).max(2000).default([]),
  cables: z.array(cableSchema).max(20_000).default([]),
  runs: z.array(runSchema).max(10_000).default([]),
  needs: z.array(needSchema).max(20_000).default([]),
  sessions: z.array(sessionSchema).max(500).default([]),
})
export type Plan = z.output<typeof planSchema>

export const emptyPlan = (site: Site): Plan => ({
  format: PLAN_FORMAT,
  version: PLAN_VERSION,
  site,
  policy: defaultPolicy,
  places: [],
  devices: [],
  kinds: [],
  cables: [],
  runs: [],
  needs: [],
  sessions: [],
})
