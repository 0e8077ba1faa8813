import { parseWithZod } from '@conform-to/zod/v4'
import type { z } from 'zod'

/**
 * A form read by its schema. A field has one value, but for `lists` of ticked ones: of a field that is sent twice the last counts, as a list in its place would
 * reach whatever shows the form again.
 */
export function parseFields<Schema extends z.ZodType>(form: FormData, schema: Schema, lists: readonly string[] = []) {
  const once = new FormData()
  for (const [name, value] of form)
    if (lists.includes(name)) once.append(name, value)
    else once.set(name, value)
  return parseWithZod(once, { schema })
}
