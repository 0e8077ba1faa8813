import type { RequestHandler } from 'express'
import { RateLimiterMemory, RateLimiterRes } from 'rate-limiter-flexible'
import { networkOf } from './network'

/** An address as the pages take it: in any case, with a slash behind it or as the data of a page, it is the same. */
const plain = (path: string): string => {
  const address = `/${path.toLowerCase().split('/').filter(Boolean).join('/')}`
  return address.endsWith('.data') ? address.slice(0, -'.data'.length) : address
}

/** Work of more than a moment, in points: one is what a hundred rows of a table take. */
type Cost = { asks: 'GET' | 'POST'; page: RegExp; points: number; perMegabyte?: number }

const costs: readonly Cost[] = [
  { asks: 'GET', page: /^\/sites\/[^/]+\/plan\.zip$/, points: 3 },
  { asks: 'GET', page: /^\/sites\/[^/]+\/drawer\/tags\.pdf$/, points: 10 },
  { asks: 'GET', page: /^\/sites\/[^/]+\/drawer\/tags\.svg$/, points: 2 },
  { asks: 'GET', page: /^\/sites\/[^/]+\/plan\.json$/, points: 1 },
  {
    asks: 'GET',
    page: /^\/sites\/[^/]+\/(tables\/[^/]+|drawer\.csv|catalogue\.csv|suppliers\/[^/]+\/prices\.csv|elsewhere)$/,
    points: 2,
  },
  { asks: 'GET', page: /^\/sites\/[^/]+\/handover\/[^/]+\/(pack\.zip|since|since\.csv|book|ahead)$/, points: 2 },
  { asks: 'POST', page: /^\/sites\/[^/]+\/handover(\/[^/]+)?$/, points: 10 },
  { asks: 'POST', page: /^\/import$/, points: 2, perMegabyte: 1 },
  { asks: 'POST', page: /^\/sites\/[^/]+\/(floors\/[^/]+|walk)$/, points: 1, perMegabyte: 2 },
  {
    asks: 'POST',
    page: /^\/sites\/[^/]+\/(survey\/[^/]+|tables|suppliers|drawer\/(import|catalogue|chip))$/,
    points: 1,
    perMegabyte: 4,
  },
  { asks: 'GET', page: /^\/sites\/[^/]+\/readings\/[^/]+$/, points: 1 },
  // what an instrument sends every few seconds costs nothing, a flood does
  { asks: 'POST', page: /^\/sites\/[^/]+\/instrument$/, points: 0, perMegabyte: 4 },
  { asks: 'POST', page: /^\/sites\/[^/]+\/(take|order)$/, points: 1, perMegabyte: 5 },
]

/** A minute's points for one browser; and for all behind one address, which may be a whole office. */
const A_MINUTE = 240
const ALL_A_MINUTE = 1200

type Asking = { method: string; path: string; bytes: number }

/** What a request costs in points; nothing for pages and what they are made of. */
export function pointsOf({ method, path, bytes }: Asking): number {
  const asks = method === 'HEAD' ? 'GET' : method
  const address = plain(path)
  const cost = costs.find((each) => each.asks === asks && each.page.test(address))
  return cost ? cost.points + Math.floor((bytes / 1e6) * (cost.perMegabyte ?? 0)) : 0
}

const asking = (request: Parameters<RequestHandler>[0]): Asking => ({
  method: request.method,
  path: request.path,
  bytes: Number(request.headers['content-length'] ?? 0),
})

/** The name that a browser carries; one that is made up buys nothing beyond what its address has. */
const browserOf = (cookies: string | undefined): string =>
  /(?:^|;\s*)hallway-who=([^;]{1,400})/.exec(cookies ?? '')?.[1] ?? ''

/** So much costly work for one browser in a minute, and so much for one address; whoever asks for more is told to wait. */
export function notTooOften(): RequestHandler {
  const browsers = new RateLimiterMemory({ keyPrefix: 'browser', points: A_MINUTE, duration: 60 })
  const senders = new RateLimiterMemory({ keyPrefix: 'sender', points: ALL_A_MINUTE, duration: 60 })
  return async (request, response, next) => {
    const points = pointsOf(asking(request))
    if (points === 0) return next()
    const sender = networkOf(request.ip ?? '')
    try {
      await senders.consume(sender, points)
      await browsers.consume(`${sender} ${browserOf(request.headers.cookie)}`, points)
      next()
    } catch (refused) {
      if (!(refused instanceof RateLimiterRes)) throw refused
      response
        .status(429)
        .set('Retry-After', String(Math.ceil(refused.msBeforeNext / 1000)))
        .type('text')
        .send('That is a lot in one minute. Nothing was saved; wait a minute and do it again.\n')
    }
  }
}

/** A page elsewhere may not make Hallway work: what is costly is asked for by Hallway's own pages, or typed. */
export const notFromElsewhere: RequestHandler = (request, response, next) => {
  const site = request.get('sec-fetch-site')
  const elsewhere = site !== undefined && site !== 'same-origin' && site !== 'none'
  if (elsewhere && pointsOf(asking(request)) > 0)
    response.status(403).type('text').send('This was asked for by another site. Open Hallway itself and ask there.\n')
  else next()
}
