import { createHash, randomBytes } from 'node:crypto'
import { createServer, type Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import express, { type Express } from 'express'
import { exportJWK, generateKeyPair, SignJWT } from 'jose'
import type { Company } from '../people/company'

/** A stand-in for a company's own sign-in, by OpenID Connect: on this machine only, asks no password, and says that it is none. */
export type SimulatedSignIn = { company: Company; stop(): Promise<void> }

/** Somebody whom it knows. */
export type SimulatedPerson = { subject: string; name: string }

const CODE_LASTS_MS = 60_000

/** Starts it on a port of its own. */
export async function startSimulatedSignIn(people: readonly SimulatedPerson[]): Promise<SimulatedSignIn> {
  const server = createServer()
  await new Promise<void>((opened) => server.listen(0, '127.0.0.1', opened))
  const { port } = server.address() as AddressInfo
  const company: Company = {
    name: 'the school (simulated)',
    issuer: new URL(`http://127.0.0.1:${port}`),
    id: 'hallway',
    secret: randomBytes(24).toString('base64url'),
  }
  server.on('request', await provider(company, people))
  return { company, stop: () => closed(server) }
}

function closed(server: Server): Promise<void> {
  server.closeAllConnections()
  return new Promise((done) => server.close(() => done()))
}

/** A code that was given out: for whom, and what has to come back with it. */
type Code = { subject: string; nonce: string; challenge: string; back: string; until: number }

async function provider(company: Company, people: readonly SimulatedPerson[]): Promise<Express> {
  const { issuer, id, secret } = company
  const home = issuer.origin
  const { publicKey, privateKey } = await generateKeyPair('RS256')
  const jwk = { ...(await exportJWK(publicKey)), kid: 'only', alg: 'RS256', use: 'sig' }
  const codes = new Map<string, Code>()
  const app = express()
  app.disable('x-powered-by')
  app.use(express.urlencoded({ extended: false, limit: '10kb' }))
  app.get('/.well-known/openid-configuration', (_request, response) => {
    response.json({
      issuer: `${home}/`,
      authorization_endpoint: `${home}/authorize`,
      token_endpoint: `${home}/token`,
      jwks_uri: `${home}/keys`,
      response_types_supported: ['code'],
      subject_types_supported: ['public'],
      id_token_signing_alg_values_supported: ['RS256'],
      code_challenge_methods_supported: ['S256'],
      token_endpoint_auth_methods_supported: ['client_secret_post'],
    })
  })
  app.get('/keys', (_request, response) => void response.json({ keys: [jwk] }))
  app.get('/authorize', (request, response) => {
    const asked = new URL(request.url, home).searchParams
    const back = asked.get('redirect_uri') ?? ''
    if (asked.get('client_id') !== id || !back.endsWith('/sign-in/company/back')) {
      response.status(400).type('text').send('This sign-in knows no such place to go back to.\n')
      return
    }
    const as = people.find(({ subject }) => subject === asked.get('as'))
    if (!as) {
      response.send(choice(people, asked))
      return
    }
    const code = randomBytes(24).toString('base64url')
    codes.set(code, {
      subject: as.subject,
      nonce: asked.get('nonce') ?? '',
      challenge: asked.get('code_challenge') ?? '',
      back,
      until: Date.now() + CODE_LASTS_MS,
    })
    const to = new URL(back)
    to.searchParams.set('code', code)
    to.searchParams.set('state', asked.get('state') ?? '')
    response.redirect(to.href)
  })
  app.post('/token', async (request, response) => {
    const { code: text, code_verifier: verifier, client_id, client_secret, redirect_uri } = request.body ?? {}
    const code = codes.get(String(text))
    codes.delete(String(text))
    const fits =
      code &&
      code.until > Date.now() &&
      client_id === id &&
      client_secret === secret &&
      redirect_uri === code.back &&
      createHash('sha256').update(String(verifier)).digest('base64url') === code.challenge
    if (!fits) {
      response.status(400).json({ error: 'invalid_grant' })
      return
    }
    const idToken = await new SignJWT({ nonce: code.nonce })
      .setProtectedHeader({ alg: 'RS256', kid: 'only' })
      .setIssuer(`${home}/`)
      .setSubject(code.subject)
      .setAudience(id)
      .setIssuedAt()
      .setExpirationTime('2m')
      .sign(privateKey)
    response.json({
      access_token: randomBytes(24).toString('base64url'),
      token_type: 'Bearer',
      expires_in: 120,
      id_token: idToken,
    })
  })
  return app
}

/** Who one would be: the stand-in takes anybody's word for it. */
function choice(people: readonly SimulatedPerson[], asked: URLSearchParams): string {
  const lines = people.map(({ subject, name }) => {
    const to = new URLSearchParams(asked)
    to.set('as', subject)
    return `<li><a href="/authorize?${to.toString().replaceAll('&', '&amp;')}">${name}</a></li>`
  })
  return `<!doctype html><html lang="en"><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>Simulated sign-in</title><main><h1>Simulated sign-in</h1><p>A stand-in for the sign-in of a company. It asks no password. Who are you?</p><ul>${lines.join('')}</ul></main></html>`
}
