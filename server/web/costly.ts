import type { RequestHandler } from 'express'
import { rateLimit } from 'express-rate-limit'

/** Work of more than a moment: files that are read, tags that are drawn, whole sites that are sent. */
const costly = [
  /^\/import(\.data)?$/,
  /^\/sites\/[^/]+\/drawer\/(import|catalogue|chip)(\.data)?$/,
  /^\/sites\/[^/]+\/take(\.data)?$/,
  /^\/sites\/[^/]+\/(floors\/[^/]+|survey\/[^/]+|walk|tables)(\.data)?$/,
  /^\/sites\/[^/]+\/drawer\/tags\.(pdf|svg)$/,
  /^\/sites\/[^/]+\/(plan\.json|plan\.zip|drawer\.csv|catalogue\.csv)$/,
]
const MOST_A_MINUTE = 120

const isCostly = ({ method, path }: { method: string; path: string }): boolean =>
  costly.some((page) => page.test(path)) && (method !== 'GET' || path.includes('.'))

/** So many costly requests of one sender in a minute; whoever sends more is told to wait. */
export const notTooOften = (): RequestHandler =>
  rateLimit({
    windowMs: 60_000,
    limit: MOST_A_MINUTE,
    standardHeaders: 'draft-7',
    legacyHeaders: false,
    // where no proxy is believed, what one says of the sender is not used
    validate: { xForwardedForHeader: false },
    skip: (request) => !isCostly(request),
    handler: (request, response) => {
      // let the sender finish what it has begun, so that it reads the answer and not a broken line
      request.resume()
      response
        .status(429)
        .type('text')
        .send('That is a lot in one minute. Nothing was saved; wait a minute and do it again.\n')
    },
  })

/** A page elsewhere may not make Hallway work: what is costly is asked for by Hallway's own pages, or typed. */
export const notFromElsewhere: RequestHandler = (request, response, next) => {
  const site = request.get('sec-fetch-site')
  const elsewhere = site !== undefined && site !== 'same-origin' && site !== 'none'
  if (elsewhere && isCostly(request))
    response.status(403).type('text').send('This was asked for by another site. Open Hallway itself and ask there.\n')
  else next()
}
