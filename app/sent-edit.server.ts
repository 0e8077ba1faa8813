import { z } from 'zod'
import { LIST_NAMES } from '../core/plan/entity'

/** An edit as a page sends it. What its value may be is for whoever applies it. */
export const sentEditSchema = z.object({
  list: z.enum(LIST_NAMES),
  id: z.string().max(64),
  base: z.number().int().nullable(),
  value: z.unknown(),
})
