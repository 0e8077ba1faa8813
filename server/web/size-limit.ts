import type { RequestHandler } from 'express'
import { LARGEST_PLAN_BYTES } from '../../core/plan/read'

/** Room for a whole plan file in its form, on the import page; any other form is small. */
const IMPORT_LIMIT = LARGEST_PLAN_BYTES + 64_000
const FORM_LIMIT = 256_000

export const limitFor = (path: string): number => (/^\/import(\.data)?$/.test(path) ? IMPORT_LIMIT : FORM_LIMIT)

/** Refuses bodies larger than a form of that page can be, said or unsaid. */
export const sizeLimit: RequestHandler = (request, response, next) => {
  const limit = limitFor(request.path)
  const refuse = () => {
    if (!response.headersSent) {
      response
        .status(413)
        .type('text')
        .send(`That is more than Hallway takes here (${Math.floor(limit / 1000)} kB). Nothing was saved.\n`)
    }
  }
  if (Number(request.headers['content-length'] ?? 0) > limit) {
    // let the sender finish a body it has begun, so that it reads the answer and not a broken line
    request.resume()
    refuse()
    return
  }
  let seen = 0
  const count = (piece: Buffer) => {
    seen += piece.length
    if (seen <= limit) return
    refuse()
    request.destroy()
  }
  if (request.headers['content-length'] === undefined && request.method !== 'GET' && request.method !== 'HEAD')
    request.on('data', count)
  next()
}
