import { createHash } from 'node:crypto'
import type { EntryContext } from 'react-router'
import { shelfFor } from '../server/kept'
import { type FilledIn, STAND_INS } from './reader.server'

/** A rendered page in pieces: what stays, and between two pieces what is filled in. */
export type RenderedPage = { pieces: readonly string[]; between: readonly (keyof FilledIn)[]; length: number }

const NAMES = Object.keys(STAND_INS) as (keyof FilledIn)[]
// letters, digits and hyphens: they mean themselves
const ANY_STAND_IN = new RegExp(`(${NAMES.map((name) => STAND_INS[name]).join('|')})`)

/** Takes a page apart where something is filled in. */
export function takenApart(html: string): RenderedPage {
  const apart = html.split(ANY_STAND_IN)
  return {
    pieces: apart.filter((_, place) => place % 2 === 0),
    between: apart
      .filter((_, place) => place % 2 === 1)
      .flatMap((word) => NAMES.find((name) => STAND_INS[name] === word) ?? []),
    length: html.length,
  }
}

/** The page as it is sent. */
export function putTogether({ pieces, between }: RenderedPage, filledIn: FilledIn): string {
  let html = ''
  for (const [place, piece] of pieces.entries()) {
    const next = between[place]
    html += next ? piece + filledIn[next] : piece
  }
  return html
}

const ROOM_BYTES = 48_000_000
const MOST_PAGES = 5000
/** Loaders that answer more than this tell of much that changes; such a page is rendered each time. */
const LONGEST_NAME = 40_000
/** A longer name is known by its sum. */
const SHORT = 400
/** Pages of a site: what they show is the site at a place of its log, and what the loaders answer. */
const SITE = 'routes/site'

/** Pages as they were rendered, the longest unasked for forgotten first. */
export const renderedPages = shelfFor<RenderedPage>('pages', {
  bytes: ROOM_BYTES,
  most: MOST_PAGES,
  // a text takes two bytes a character at most
  sizeOf: ({ length }, key) => 2 * (length + key.length),
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
