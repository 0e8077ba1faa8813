import { parseWithZod } from '@conform-to/zod/v4'
import type { z } from 'zod'

/** What a button of a form asks for beside saving: a line more, a line less. Conform reads it before it reads anything else. */
const INTENT = '__intent__'

/**
 * A form read by its schema. A field has one value, but for `lists` of ticked ones: of a field that is sent twice the last counts, as a list in its place would
 * reach whatever shows the form again. What no button asks for is not asked.
 */
export function parseFields<Schema extends z.ZodType>(form: FormData, schema: Schema, lists: readonly string[] = []) {
  const once = new FormData()
  for (const [name, value] of form)
    if (lists.includes(name)) once.append(name, value)
    else once.set(name, value)
  try {
    return parseWithZod(once, { schema })
  } catch (error) {
    if (!once.has(INTENT)) throw error
    once.delete(INTENT)
    return parseWithZod(once, { schema })
  }
}
