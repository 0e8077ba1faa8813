import { createServer, type Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import Provider from 'oidc-provider'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { startSimulatedSignIn } from '../command/simulated-sign-in'
import { backFromCompany, type Company, companyOf, type Errand, goToCompany } from './company'

// The company's sign-in, played by the standard provider package and by the stand-in that ships with the demo.

const BACK = 'http://127.0.0.1:4310/sign-in/company/back'
const wants = { to: '/', invitation: null }

/** A browser that goes where it is sent and keeps its cookies, until it is sent back to Hallway. */
async function browse(
  to: string,
  answer: (page: string, at: URL) => { to: string; form: Record<string, string> } | null,
): Promise<URL> {
  const cookies = new Map<string, string>()
  let next = { to, form: null as Record<string, string> | null }
  for (let step = 0; step < 20; step += 1) {
    const at = new URL(next.to)
    if (at.href.startsWith(BACK)) return at
    const response = await fetch(at, {
      redirect: 'manual',
      headers: { cookie: [...cookies].map((pair) => pair.join('=')).join('; ') },
      ...(next.form ? { method: 'POST', body: new URLSearchParams(next.form) } : {}),
    })
    for (const cookie of response.headers.getSetCookie()) {
      const [name = '', value = ''] = (cookie.split(';')[0] ?? '').split('=')
      cookies.set(name, value)
    }
    const location = response.headers.get('location')
    if (location) next = { to: new URL(location, at).href, form: null }
    else {
      const filled = answer(await response.text(), at)
      if (!filled) throw new Error(`nothing to do at ${at.href}: ${response.status}`)
      next = { to: new URL(filled.to, at).href, form: Object.keys(filled.form).length > 0 ? filled.form : null }
    }
  }
  throw new Error('it goes round and round')
}

let server: Server
let standard: Company
beforeAll(async () => {
  server = createServer()
  await new Promise<void>((opened) => server.listen(0, '127.0.0.1', opened))
  const issuer = new URL(`http://127.0.0.1:${(server.address() as AddressInfo).port}`)
  standard = { name: 'a company', issuer, id: 'hallway', secret: 'only for this test, and long enough' }
  const provider = new Provider(issuer.origin, {
    clients: [
      {
        client_id: standard.id,
        client_secret: standard.secret,
        redirect_uris: [BACK],
        token_endpoint_auth_method: 'client_secret_post',
      },
    ],
    cookies: { keys: ['for this test'] },
    pkce: { required: () => true },
  })
  server.on('request', provider.callback())
})
afterAll(() => {
  server.closeAllConnections()
  server.close()
})

/** Fills in what the standard provider's own pages ask. */
const atStandard = (page: string, at: URL) => {
  const [, prompt = ''] = /name="prompt" value="(\w+)"/.exec(page) ?? []
  const [, action = at.href] = /<form[^>]*action="([^"]+)"/.exec(page) ?? []
  return prompt ? { to: action, form: { prompt, login: 'ada-at-the-company', password: 'any' } } : null
}

const errandAnd = async (company: Company) => goToCompany(company, BACK, wants)

describe('the company’s sign-in', () => {
  it('says who somebody is, as the standard provider tells it', async () => {
    const { to, errand } = await errandAnd(standard)
    const back = await browse(to, atStandard)
    expect(await backFromCompany(standard, back, errand)).toEqual({
      issuer: standard.issuer.origin,
      subject: 'ada-at-the-company',
    })
    // what came back once is worth nothing a second time
    await expect(backFromCompany(standard, back, errand)).rejects.toThrow(/does not fit/)
  })
  it('lets nobody in with an answer that was meant for another browser, or was changed', async () => {
    const mine = await errandAnd(standard)
    const theirs = await errandAnd(standard)
    const back = await browse(mine.to, atStandard)
    const others: Partial<Errand>[] = [
      { state: theirs.errand.state },
      { nonce: theirs.errand.nonce },
      { verifier: theirs.errand.verifier },
    ]
    await expect(backFromCompany(standard, back, { ...mine.errand, ...others[0] })).rejects.toThrow(/does not fit/)
    const forged = new URL(back)
    forged.searchParams.set('code', 'made-up')
    await expect(backFromCompany(standard, forged, mine.errand)).rejects.toThrow(/does not fit/)
    for (const other of others.slice(1)) {
      const again = await errandAnd(standard)
      const there = await browse(again.to, atStandard)
      await expect(backFromCompany(standard, there, { ...again.errand, ...other })).rejects.toThrow(/does not fit/)
    }
  })
  it('of the demo says who somebody chose to be', async () => {
    const { company, stop } = await startSimulatedSignIn([{ subject: 'egil', name: 'Egil' }])
    try {
      const { to, errand } = await errandAnd(company)
      const back = await browse(to, (page) => {
        const [, link = ''] = /href="([^"]+)"/.exec(page) ?? []
        return { to: link.replaceAll('&amp;', '&'), form: {} }
      })
      expect(await backFromCompany(company, back, errand)).toEqual({ issuer: company.issuer.href, subject: 'egil' })
    } finally {
      await stop()
    }
  })
  it('that is away is told in words', async () => {
    const { company, stop } = await startSimulatedSignIn([])
    await stop()
    await expect(errandAnd(company)).rejects.toThrow(/does not answer[\s\S]*password/)
  })
  it('is set up by all it takes, over https but on this machine', () => {
    const all = { HALLWAY_SIGN_IN: 'https://sign-in.example', HALLWAY_SIGN_IN_ID: 'x', HALLWAY_SIGN_IN_SECRET: 'y' }
    expect(companyOf({})).toBeNull()
    expect(companyOf(all)?.issuer.href).toBe('https://sign-in.example/')
    for (const wrong of [
      { HALLWAY_SIGN_IN: 'http://sign-in.example' },
      { HALLWAY_SIGN_IN: 'no address' },
      { HALLWAY_SIGN_IN_SECRET: '' },
    ])
      expect(() => companyOf({ ...all, ...wrong })).toThrow(/HALLWAY_SIGN_IN is the https address/)
  })
})
