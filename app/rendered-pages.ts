import { createHash } from 'node:crypto'
import { LRUCache } from 'lru-cache'
import type { EntryContext } from 'react-router'

/** A rendered page, with the one-time word in it that the next sender's takes the place of. */
export type RenderedPage = { html: string; nonce: string }

const ROOM_BYTES = 48_000_000
/** Loaders that answer more than this tell of much that changes; such a page is rendered each time. */
const LONGEST_NAME = 40_000
/** A longer name is known by its sum. */
const SHORT = 400
/** Pages of a site: what they show is the site at a place of its log, and what the loaders answer. */
const SITE = 'routes/site'

/** Pages as they were rendered, the longest unasked for forgotten first. */
export const renderedPages = new LRUCache<string, RenderedPage>({
  maxSize: ROOM_BYTES,
  // a text takes two bytes a character at most
  sizeCalculation: ({ html }, key) => 2 * (html.length + key.length),
})

/** What a page is made from, in one word; null where that is more than its address and what its loaders answered. */
export function nameOfPage(
  request: Request,
  { staticHandlerContext: { loaderData, actionData, errors } }: EntryContext,
): string | null {
  if (request.method !== 'GET' || actionData || errors || !(SITE in loaderData)) return null
  const { pathname, search, origin } = new URL(request.url)
  const name = `${origin}${pathname}${search} ${JSON.stringify(loaderData)}`
  if (name.length > LONGEST_NAME) return null
  return name.length > SHORT ? createHash('sha256').update(name).digest('base64') : name
}
