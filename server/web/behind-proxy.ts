import type { RequestHandler } from 'express'
import { hostName, isLoopback } from './reach'

/**
 * What came through the proxy in front is taken for a request to the address people use, whatever the proxy calls it: pages, checks and cookies then go by
 * one name and scheme. What was sent straight to this machine stays as it is.
 */
export function behindProxy(url: URL | null): RequestHandler {
  return (request, _response, next) => {
    const { headers } = request
    const name = hostName(headers.host)
    const believed: (address: string, hop: number) => boolean = request.app.get('trust proxy fn')
    const byProxy = believed(request.socket.remoteAddress ?? '', 0)
    const handedOn = (byProxy && headers['x-forwarded-for'] !== undefined) || headers.origin === url?.origin
    // a proxy calls this machine by its own name or passes on the one it was called by; any other name stays, and is turned away
    if (url && (name === url.hostname || (isLoopback(name) && handedOn))) {
      headers.host = url.host
      headers['x-forwarded-host'] = url.host
      headers['x-forwarded-proto'] = url.protocol.slice(0, -1)
    } else {
      delete headers['x-forwarded-host']
      delete headers['x-forwarded-proto']
    }
    next()
  }
}
