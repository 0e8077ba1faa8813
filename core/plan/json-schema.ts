import { z } from 'zod'
import { PLAN_VERSION, planSchema } from './plan'

/** The plan file as JSON Schema (draft 2020-12), made from the same schema that reads it, so that the two cannot differ. */
export const planJsonSchema = (): object => ({
  title: `Hallway plan file, version ${PLAN_VERSION}`,
  ...z.toJSONSchema(planSchema, { io: 'input', reused: 'ref' }),
})
