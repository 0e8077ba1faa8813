import { z } from 'zod'
import { planSchema } from './plan'

/** The plan file as JSON Schema (draft 2020-12), made from the same schema that reads it, so that the two cannot differ. */
export const planJsonSchema = (): object => ({
  title: 'Hallway plan file, version 1',
  ...z.toJSONSchema(planSchema, { io: 'input', reused: 'ref' }),
})
