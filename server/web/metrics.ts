import type { RequestHandler } from 'express'
import { collectDefaultMetrics, Histogram, register } from 'prom-client'
import { hostName, isLoopback } from './reach'

collectDefaultMetrics()
const seconds = new Histogram({
  name: 'hallway_request_seconds',
  help: 'How long requests took, by what was asked for and what was answered',
  labelNames: ['method', 'asked', 'status'],
  buckets: [0.005, 0.01, 0.025, 0.05, 0.1, 0.25, 0.5, 1, 2.5, 5, 10],
})

/** Few names, so that no site's name becomes one: what an address is for. */
function askedFor(path: string): string {
  if (path.startsWith('/assets/')) return 'asset'
  if (path.endsWith('/live')) return 'line'
  if (path.endsWith('/copy') || path.endsWith('/changes')) return 'copy'
  return path.endsWith('.data') ? 'data' : 'page'
}

/** Counts how long each request takes. */
export const measured: RequestHandler = (request, response, next) => {
  const stop = seconds.startTimer()
  const asked = askedFor(request.path)
  response.on('finish', () => stop({ method: request.method, asked, status: String(response.statusCode) }))
  next()
}

/** The figures in the open text format, for a collector on this machine; nobody beyond it learns that they are here. */
export const metrics: RequestHandler = async (request, response, next) => {
  const near = (request.socket.remoteAddress ?? '').replace(/^::ffff:/, '')
  if (
    !isLoopback(near) ||
    !isLoopback(hostName(request.headers.host)) ||
    request.headers['x-forwarded-for'] !== undefined
  )
    return next()
  response.type(register.contentType).send(await register.metrics())
}
