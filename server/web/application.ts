import { randomBytes } from 'node:crypto'
import { join } from 'node:path'
import { createRequestHandler } from '@react-router/express'
import compression from 'compression'
import express, { type Express } from 'express'
import helmet from 'helmet'
import { pinoHttp } from 'pino-http'
import type { ServerBuild } from 'react-router'
import sirv from 'sirv'
import { database, isDatabaseAway } from '../database/connection'
import { log } from '../log'
import { NONCE_HEADER } from './nonce'
import { sameSite } from './same-site'
import { sizeLimit } from './size-limit'

const HOUR_SECONDS = 3600
const YEAR_SECONDS = 365 * 24 * HOUR_SECONDS

type Options = { build: ServerBuild; clientFolder: string; names: ReadonlySet<string> | null }

/** The web application: security headers, same-site checks and size limits in front of the React Router build. */
export function application({ build, clientFolder, names }: Options): Express {
  const app = express()
  app.disable('x-powered-by')
  app.use(
    pinoHttp({
      logger: log,
      serializers: {
        req: ({ method, url }) => ({ method, path: String(url).split('?')[0] }),
        res: ({ statusCode }) => ({ statusCode }),
      },
    }),
  )
  app.use((request, response, next) => {
    response.locals.nonce = randomBytes(16).toString('base64')
    // for the page renderer; whatever the sender put there is replaced
    request.headers[NONCE_HEADER] = response.locals.nonce
    next()
  })
  app.use(
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          defaultSrc: ["'self'"],
          scriptSrc: ["'self'", (_request, response) => `'nonce-${(response as express.Response).locals.nonce}'`],
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
      // plain http on loopback; a proxy that adds TLS adds this too
      strictTransportSecurity: false,
      referrerPolicy: { policy: 'same-origin' },
    }),
  )
  app.use(sameSite(names))
  // what was built is zipped already
  const zipped = { gzip: true, brotli: true }
  app.use('/assets', sirv(join(clientFolder, 'assets'), { ...zipped, immutable: true, maxAge: YEAR_SECONDS }))
  app.use(sirv(clientFolder, { ...zipped, maxAge: HOUR_SECONDS }))
  app.use(compression())
  app.get('/health', async (_request, response) => {
    try {
      await database().raw('SELECT 1')
      response.json({ status: 'ok', database: 'ok' })
    } catch (error) {
      log.warn({ away: isDatabaseAway(error) }, 'health: the database does not answer')
      response.status(503).json({ status: 'degraded', database: 'away' })
    }
  })
  app.use(sizeLimit)
  app.use(createRequestHandler({ build }))
  return app
}
