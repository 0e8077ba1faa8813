import type { RequestHandler } from 'express'
import { hostName, isLoopback } from './reach'

const SAFE = new Set(['GET', 'HEAD', 'OPTIONS'])

export type Asking = {
  method: string
  host: string | undefined
  origin: string | undefined
  fetchSite: string | undefined
}

/**
 * Whether a request may change something: it comes from a page of Hallway itself. Browsers say so in Sec-Fetch-Site, older ones in
 * Origin; a request that carries neither does not come from a page at all (a script on this machine) and is let through.
 */
export function mayChange({ method, host, origin, fetchSite }: Asking): boolean {
  if (SAFE.has(method)) return true
  if (fetchSite !== undefined) return fetchSite === 'same-origin' || fetchSite === 'none'
  if (origin === undefined) return true
  return URL.canParse(origin) && new URL(origin).host === host
}

/** Whether the name a request was sent to is one Hallway answers to; on loopback a foreign name is a page that had its name re-pointed here. */
export function mayAsk(host: string | undefined, allowed: ReadonlySet<string> | null): boolean {
  const hostname = hostName(host)
  return hostname !== '' && (isLoopback(hostname) || allowed === null || allowed.has(hostname))
}

export function sameSite(allowed: ReadonlySet<string> | null): RequestHandler {
  return (request, response, next) => {
    const { host, origin } = request.headers
    const fetchSite = request.get('sec-fetch-site')
    if (!mayAsk(host, allowed)) response.status(421).type('text').send('Hallway does not answer to this name.\n')
    else if (!mayChange({ method: request.method, host, origin, fetchSite })) {
      response
        .status(403)
        .type('text')
        .send('This request came from another site, so nothing was changed. Open Hallway itself and try again.\n')
    } else next()
  }
}
