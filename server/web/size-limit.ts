import type { RequestHandler } from 'express'
import { LARGEST_TABLE_BYTES } from '../../core/drawer/decode-text'
import { LARGEST_SITE_ARCHIVE_BYTES, LARGEST_UPLOAD_BYTES } from '../../core/files/file-types'
import { LARGEST_ARCHIVE_BYTES } from '../../core/identity/class-folder'
import { LARGEST_READING_BYTES } from '../../core/identity/device-reading'

/** Room for a form around a file. */
const BESIDE_FILE = 64_000
const FORM_LIMIT = 256_000

/** Pages whose forms are large, as most of them carry a file: a whole plan, a table, the folder of a computer's type-C class. Any other form is small. */
const filePages: readonly [RegExp, number][] = [
  [/^\/import(\.data)?$/, LARGEST_SITE_ARCHIVE_BYTES],
  [/^\/sites\/[^/]+\/drawer\/(import|catalogue)(\.data)?$/, LARGEST_TABLE_BYTES],
  [/^\/sites\/[^/]+\/drawer\/chip(\.data)?$/, LARGEST_ARCHIVE_BYTES],
  [/^\/sites\/[^/]+\/tables(\.data)?$/, LARGEST_TABLE_BYTES],
  // what a computer says of its ports, in a log
  [/^\/sites\/[^/]+\/survey\/[^/]+(\.data)?$/, LARGEST_READING_BYTES],
  // a drawing under a floor, a photo of a place
  [/^\/sites\/[^/]+\/(floors\/[^/]+|walk)(\.data)?$/, LARGEST_UPLOAD_BYTES],
  // a proposal for every run of a large site
  [/^\/sites\/[^/]+\/take(\.data)?$/, 4_000_000],
  // thousands of cables chosen at once are sent by their ids
  [/^\/sites\/[^/]+\/drawer(\.data)?$/, 700_000],
]

export function limitFor(path: string): number {
  const page = filePages.find(([address]) => address.test(path))
  return page ? page[1] + BESIDE_FILE : FORM_LIMIT
}

/** Refuses a body larger than a form of that page can be, before any of it is read. Browsers say the size of a form; what does not is refused. */
export const sizeLimit: RequestHandler = (request, response, next) => {
  const limit = limitFor(request.path)
  const refuse = (status: number, text: string) => {
    // let the sender finish what it has begun, so that it reads the answer and not a broken line
    request.resume()
    response.status(status).type('text').send(text)
  }
  if (request.headers['transfer-encoding'] !== undefined) {
    refuse(411, 'Say how large the body is (Content-Length). Nothing was saved.\n')
  } else if (Number(request.headers['content-length'] ?? 0) > limit) {
    refuse(413, `That is more than Hallway takes here (${Math.floor(limit / 1000)} kB). Nothing was saved.\n`)
  } else next()
}
