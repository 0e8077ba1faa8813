import * as client from 'openid-client'
import { Failure } from '../failure'
import { log } from '../log'
import { isLoopback } from '../web/reach'

/** The company's own sign-in, by OpenID Connect, as whoever runs Hallway set it up. */
export type Company = { name: string; issuer: URL; id: string; secret: string }

/** What a browser keeps while it is away at the company's: what the answer has to fit, and what it went there for. */
export type Errand = { state: string; nonce: string; verifier: string; to: string; invitation: string | null }

/** Who came back: the company's name for somebody, which is nobody else's for good. */
export type Login = { issuer: string; subject: string }

/** A service that says nothing for so long is away. */
const PATIENCE_SECONDS = 5
const AWAY =
  'The company’s sign-in does not answer. Nothing was changed. Sign in with your password, or try again in a moment.'
const UNFIT = 'What came back from the company’s sign-in does not fit what was asked. Begin once more.'

/** The company's sign-in by the surroundings; null where there is none. */
export function companyOf(environment: NodeJS.ProcessEnv = process.env): Company | null {
  const { HALLWAY_SIGN_IN: issuer, HALLWAY_SIGN_IN_ID: id, HALLWAY_SIGN_IN_SECRET: secret } = environment
  if (!issuer) return null
  const url = URL.canParse(issuer) ? new URL(issuer) : null
  if (!url || !id || !secret || (url.protocol !== 'https:' && !isLoopback(url.hostname)))
    throw new Failure(
      'HALLWAY_SIGN_IN is the https address of the company’s sign-in; HALLWAY_SIGN_IN_ID and HALLWAY_SIGN_IN_SECRET are what it knows this Hallway by.',
    )
  return { name: environment.HALLWAY_SIGN_IN_NAME ?? 'the company', issuer: url, id, secret }
}

/** The surroundings that say so, for a process that is started with them. */
export const surroundingsOf = ({ name, issuer, id, secret }: Company): Record<string, string> => ({
  HALLWAY_SIGN_IN: issuer.href,
  HALLWAY_SIGN_IN_ID: id,
  HALLWAY_SIGN_IN_SECRET: secret,
  HALLWAY_SIGN_IN_NAME: name,
})

const found = new Map<string, Promise<client.Configuration>>()

/** What the service says of itself, asked once; one that did not answer is asked again. */
function configuration({ issuer, id, secret }: Company): Promise<client.Configuration> {
  const known = found.get(issuer.href)
  if (known) return known
  const asked = client.discovery(issuer, id, secret, undefined, {
    timeout: PATIENCE_SECONDS,
    // plain http is let through on this machine alone
    execute: issuer.protocol === 'http:' ? [client.allowInsecureRequests] : [],
  })
  found.set(issuer.href, asked)
  asked.catch(() => found.delete(issuer.href))
  return asked
}

/** Where a browser goes to sign in at the company's, and what it keeps meanwhile. */
export async function goToCompany(
  company: Company,
  back: string,
  errand: Pick<Errand, 'to' | 'invitation'>,
): Promise<{ to: string; errand: Errand }> {
  const config = await configuration(company).catch((error) => {
    log.warn(reasonOf(error), 'the company’s sign-in does not answer')
    throw new Failure(AWAY)
  })
  const kept: Errand = {
    ...errand,
    state: client.randomState(),
    nonce: client.randomNonce(),
    verifier: client.randomPKCECodeVerifier(),
  }
  const to = client.buildAuthorizationUrl(config, {
    redirect_uri: back,
    scope: 'openid',
    state: kept.state,
    nonce: kept.nonce,
    code_challenge: await client.calculatePKCECodeChallenge(kept.verifier),
    code_challenge_method: 'S256',
  })
  return { to: to.href, errand: kept }
}

/** Who came back from the company's, by the address they came back to and what their browser kept. Throws in words where the two do not fit. */
export async function backFromCompany(company: Company, address: URL, errand: Errand): Promise<Login> {
  const { state, nonce, verifier } = errand
  try {
    const tokens = await client.authorizationCodeGrant(await configuration(company), address, {
      expectedState: state,
      expectedNonce: nonce,
      pkceCodeVerifier: verifier,
      idTokenExpected: true,
    })
    const claims = tokens.claims()
    if (!claims) throw new Error('there are no claims')
    return { issuer: claims.iss, subject: claims.sub }
  } catch (error) {
    log.warn(reasonOf(error), 'somebody came back from the company’s sign-in and could not be let in')
    throw new Failure(isAway(error) ? AWAY : UNFIT)
  }
}

/** What the log may hold of it: what went wrong, and nothing of who it was. */
const reasonOf = (error: unknown): { reason: string } => ({
  reason: error instanceof Error ? error.message : 'unknown',
})

const isAway = (error: unknown): boolean =>
  error instanceof TypeError || (error instanceof Error && ['TimeoutError', 'AbortError'].includes(error.name))
