import { foldTag } from './fields'
import type { Key } from './list'

/** No two of a list may carry one tag, as a person reads it off a flag. */
export const tagKey = (tag: string): Key => ({
  path: 'tag',
  key: `tag ${foldTag(tag)}`,
  taken: () => `"${tag}" is used twice`,
})
