import type { RequestHandler } from 'express'
import { LARGEST_PLAN_BYTES } from '../../core/plan/read'

/** Room for a whole plan file in its form, on the import page; any other form is small. */
const IMPORT_LIMIT = LARGEST_PLAN_BYTES + 64_000
const FORM_LIMIT = 256_000

export const limitFor = (path: string): number => (/^\/import(\.data)?$/.test(path) ? IMPORT_LIMIT : FORM_LIMIT)

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
