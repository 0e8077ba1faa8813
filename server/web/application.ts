import { randomBytes, randomUUID } from 'node:crypto'
import { join } from 'node:path'
import { constants } from 'node:zlib'
import { createRequestHandler } from '@react-router/express'
import compression from 'compression'
import express, { type Express } from 'express'
import helmet from 'helmet'
import { pinoHttp } from 'pino-http'
import type { ServerBuild } from 'react-router'
import sirv from 'sirv'
import { log } from '../log'
import { behindProxy } from './behind-proxy'
import { notFromElsewhere, notTooOften } from './costly'
import { health } from './health'
import { measured, metrics } from './metrics'
import { ADDRESS_HEADER, NONCE_HEADER, REQUEST_HEADER } from './nonce'
import { oneAddress } from './one-address'
import { pageDataOnly } from './page-data'
import type { Reach } from './reach'
import { sameSite } from './same-site'
import { unreadBody } from './unread-body'

const HOUR_SECONDS = 3600
const YEAR_SECONDS = 365 * 24 * HOUR_SECONDS

type Options = { build: ServerBuild; clientFolder: string; reach: Pick<Reach, 'names' | 'publicUrl' | 'proxies'> }

/** The web application: security headers, same-site checks and size limits in front of the React Router build. */
export function application({ build, clientFolder, reach }: Options): Express {
  const app = express()
  app.disable('x-powered-by')
  // the proxy in front, and nobody else, says who sends
  app.set('trust proxy', reach.publicUrl ? [...reach.proxies] : false)
  app.use(
    pinoHttp({
      logger: log,
      genReqId: (_request, response) => {
        const id = randomUUID()
        response.setHeader('X-Request-Id', id)
        return id
      },
      serializers: {
        req: ({ id, method, url }) => ({ id, method, path: withoutSecret(String(url).split('?')[0] ?? '') }),
        res: ({ statusCode }) => ({ statusCode }),
      },
    }),
  )
  app.use(oneAddress)
  app.use((request, response, next) => {
    response.locals.nonce = randomBytes(16).toString('base64')
    // for the page renderer; whatever the sender put there is replaced. What is fetched for a page has no scripts of its own
    if (request.path.endsWith('.data')) delete request.headers[NONCE_HEADER]
    else request.headers[NONCE_HEADER] = response.locals.nonce
    request.headers[REQUEST_HEADER] = String(request.id)
    request.headers[ADDRESS_HEADER] = request.ip ?? ''
    next()
  })
  app.use(
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          defaultSrc: ["'self'"],
          scriptSrc: [
            "'self'",
            (_request, response) => `'nonce-${(response as express.Response).locals.nonce}'`,
            (request) => (SOLVER.test(request.url ?? '') ? "'wasm-unsafe-eval'" : "'self'"),
          ],
          // Emotion writes its rules into style elements as components appear
          styleSrc: ["'self'", "'unsafe-inline'"],
          imgSrc: ["'self'", 'data:'],
          fontSrc: ["'self'"],
          connectSrc: ["'self'"],
          workerSrc: ["'self'"],
          objectSrc: ["'none'"],
          baseUri: ["'none'"],
          formAction: ["'self'"],
          frameAncestors: ["'none'"],
        },
      },
      // plain http on loopback
      strictTransportSecurity: reach.publicUrl?.protocol === 'https:' ? { maxAge: YEAR_SECONDS } : false,
      referrerPolicy: { policy: 'same-origin' },
    }),
  )
  app.use(measured)
  app.use(unreadBody)
  app.use(behindProxy(reach.publicUrl))
  app.use(sameSite(reach.names))
  app.use(notFromElsewhere)
  app.use(pageDataOnly(build))
  app.use(notTooOften())
  // what was built is zipped already
  const zipped = { gzip: true, brotli: true }
  app.use('/assets', sirv(join(clientFolder, 'assets'), { ...zipped, immutable: true, maxAge: YEAR_SECONDS }))
  app.use(sirv(clientFolder, { ...zipped, maxAge: HOUR_SECONDS }))
  // some 15 % more bytes than the usual quality of four, at twice as many pages a second: the better ones spend most of it on getting ready
  app.use(compression({ brotli: { params: { [constants.BROTLI_PARAM_QUALITY]: 1 } } }))
  app.get('/health', health)
  app.get('/metrics', metrics)
  app.use(createRequestHandler({ build }))
  return app
}

/** A path as the log may hold it: what an invitation or a link opens with is nobody's to read there. */
const withoutSecret = (path: string): string => path.replace(/\/(welcome|look)\/[^/]+/gi, '/$1/...')

/** The worker that decides orders, whose solver is WebAssembly: it alone may compile some, as a worker goes by the policy that it came with. */
const SOLVER = /^\/assets\/order\.worker-[\w-]+\.js$/
