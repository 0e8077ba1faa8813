import { createHash } from 'node:crypto'
import { setTimeout as wait } from 'node:timers/promises'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { connect } from '../../server/database/connection'
import { demo } from '../support/demo-plan'
import { command, type HallwayProcess, PASSWORD, type Somebody, signIn, startHallway } from '../support/hallway-process'
import { filledIn, patterns } from '../support/site-routes'

// Who may do what, asked of every address there is, as every one who may ask.

const PORT = 4392
const address = `http://127.0.0.1:${PORT}`
const people = [
  { name: 'Ada', may: 'admin' },
  { name: 'Lea', may: 'lead' },
  { name: 'Wim', may: 'work' },
  { name: 'Loe', may: 'look' },
  { name: 'Nol', may: 'nothing' },
] as const satisfies readonly Somebody[]
const site = '/sites/saltmarsh'

let hallway: HallwayProcess
/** What the browser of each carries; the client's is that of a link, a stranger carries nothing. */
const cookies: Record<string, string> = { stranger: '' }
let token = ''
const by = (who: string): Record<string, string> => ({ cookie: cookies[who] ?? '' })

beforeAll(async () => {
  hallway = await startHallway(PORT, { people, environment: { HALLWAY_URL: address } })
  for (const { name } of people) cookies[name] = await signIn(address, name)
  for (const [who, hides] of [
    ['client', ''],
    ['visitor', 'prices notes'],
  ] as const) {
    const looked = await fetch(await makeKey('link', `The ${who}`, hides), { redirect: 'manual' })
    cookies[who] = looked.headers.getSetCookie()[0]?.split(';')[0] ?? ''
  }
  token = await makeKey('token', 'A script')
})
afterAll(() => hallway.stop())

/** A link or a token, as a lead makes it on the page: told once. */
async function makeKey(sort: 'link' | 'token', name: string, hides = '', maker = 'Lea'): Promise<string> {
  const body = new URLSearchParams({ do: 'key', sort, name, held: 'work', hides, until: '' })
  const answer = await fetch(`${address}${site}/people.data`, { method: 'POST', body, headers: by(maker) })
  const text = await answer.text()
  const [secret = ''] = /(?<=")(?:\/look\/)?[\w-]{43}(?=")/.exec(text) ?? []
  return sort === 'link' ? `${address}${secret}` : secret
}

/** What a browser carries that has opened a new link. */
async function linkOf(name: string): Promise<string> {
  const looked = await fetch(await makeKey('link', name), { redirect: 'manual' })
  return looked.headers.getSetCookie()[0]?.split(';')[0] ?? ''
}

type Asked = { status: number; to: string; text: string }

/** As a proxy tells where a request is from: each office asks a little, as what is costly is counted by address. */
let asked = 0
const from = (): string => {
  asked += 1
  return `198.51.100.${Math.floor(asked / 20) % 250}`
}

async function ask(who: string, path: string, body?: URLSearchParams): Promise<Asked> {
  const answer = await fetch(`${address}${path}`, {
    redirect: 'manual',
    headers: { ...by(who), 'x-forwarded-for': path === '/sign-in' ? '192.0.2.1' : from() },
    ...(body ? { method: 'POST', body } : {}),
  })
  const text = await answer.text()
  // a page's data carry where it goes on to within them
  const [, inner = ''] = /"redirect","([^"]+)"/.exec(answer.status === 202 ? text : '') ?? []
  return { status: answer.status, to: answer.headers.get('location') ?? inner, text }
}
/** Who may open an address, the least of them. */
type Reader = 'anybody' | 'person' | 'admin' | 'look' | 'lead'
/** What does not lie under a site, and what of a site more than a look asks for. Every other address of a site is for whoever may look at it. */
const readers: Record<string, Reader> = {
  '/': 'person',
  '/import': 'person',
  '/unit': 'anybody',
  '/who': 'person',
  '/words': 'anybody',
  '/sign-in': 'anybody',
  '/sign-in/company': 'anybody',
  '/sign-in/passkey': 'anybody',
  '/sign-in/company/back': 'anybody',
  '/sign-out': 'anybody',
  '/welcome/:invitation': 'anybody',
  '/look/:link': 'anybody',
  '/account': 'person',
  '/account/passkeys': 'person',
  '/people': 'admin',
  '/sites/:site/people': 'lead',
}
const readerOf = (pattern: string): Reader | undefined =>
  readers[pattern] ?? (pattern.startsWith('/sites/:site') ? 'look' : pattern === '/*' ? 'person' : undefined)

const everybody = ['stranger', 'client', ...people.map(({ name }) => name)]
/** Whether somebody is among those. */
const isOne = (who: string, reader: Reader): boolean =>
  ({
    anybody: true,
    person: !['stranger', 'client'].includes(who),
    admin: who === 'Ada',
    lead: ['Ada', 'Lea'].includes(who),
    look: ['Ada', 'Lea', 'Wim', 'Loe', 'client'].includes(who),
  })[reader]

/** Turned away: to sign in, to the one site a client may look at, or in words. */
const turnedAway = ({ status, to }: { status: number; to: string }): boolean =>
  [401, 403, 404].includes(status) || to.startsWith('/sign-in') || to === site

describe('every address', () => {
  const all = patterns.map((pattern) => pattern || '/').filter((pattern) => !pattern.endsWith('/live'))
  it('has somebody who may open it', () => {
    expect(all.filter((pattern) => readerOf(pattern) === undefined)).toEqual([])
  })
  // how one comes in and goes out changes who asks
  it.each(all.filter((pattern) => pattern !== '/sign-in' && pattern !== '/sign-out'))(
    '%s is opened by whoever may, and by nobody else, as a page and as its data',
    { timeout: 90_000 },
    async (pattern) => {
      const path = filledIn(pattern, demo) || '/'
      const reader = readerOf(pattern) as Reader
      const asData = `${path === '/' ? '/_root' : path}.data`
      expect((await ask('Ada', path)).status).not.toBe(403)
      const { status } = await ask('Ada', asData)
      for (const who of everybody) {
        if (isOne(who, reader)) {
          // what a page is made of; its HTML is made for one of them
          if (who !== 'Ada') expect((await ask(who, asData)).status, `${who} at ${path}`).toBe(status)
          continue
        }
        for (const each of [path, asData]) {
          const answer = await ask(who, each)
          expect(turnedAway(answer), `${who} at ${each}: ${answer.status} ${answer.to}`).toBe(true)
          expect(answer.text).not.toContain('Gallery')
        }
      }
    },
  )
  it.each(all.filter((pattern) => pattern.startsWith('/sites/')))(
    '%s takes nothing from whoever may only look',
    async (pattern) => {
      const path = filledIn(pattern, demo)
      // which place of the log it shows
      const place = async () => (await ask('Ada', `${site}.data?_routes=routes%2Fsite`)).text
      const before = await place()
      for (const who of ['stranger', 'client', 'Loe'])
        for (const each of [path, `${path}.data`]) {
          const { status } = await ask(who, each, new URLSearchParams({ intent: 'delete', base: '1' }))
          expect([401, 403, 404], `${who} to ${each}`).toContain(status)
        }
      expect(await place()).toBe(before)
    },
    30_000,
  )
  it('part of a page is no way round: its loaders are not asked one by one', async () => {
    for (const who of ['stranger', 'Nol']) {
      const { text, status } = await ask(who, `${site}/history.data?_routes=routes%2Fhistory%2Fhistory`)
      expect([202, 404]).toContain(status)
      expect(text).not.toContain('saltmarsh school')
      expect(text).not.toMatch(/"lines"|"stored"/)
    }
  })
  it('nobody learns which sites there are', async () => {
    const here = await ask('Nol', site)
    const none = await ask('Nol', '/sites/none')
    expect([here.status, none.status]).toEqual([404, 404])
    expect((await ask('Nol', '/')).text).not.toContain('Saltmarsh')
  })
})

describe('whoever is kept from prices and notes', () => {
  const readable = patterns.filter((pattern) => pattern.startsWith('/sites/') && !pattern.endsWith('/live'))
  const notes = [...JSON.stringify(demo).matchAll(/"note":"([^"\\\\]{12,})"/g)].map(([, note = '']) =>
    note.slice(0, 60),
  )
  it.each(readable)('finds none at %s, as a page and as its data', async (pattern) => {
    const path = filledIn(pattern, demo)
    for (const each of [path, `${path}.data`]) {
      const { status, text } = await ask('visitor', each)
      if (status !== 200) expect([403, 404, 405, 409], `${status} at ${each}`).toContain(status)
      if (status === 403) continue
      for (const note of notes) expect(text, each).not.toContain(note)
      expect(text, each).not.toMatch(/"(price|wantsPrice|delivery)",?\s*:?\d/)
      expect(text, each).not.toMatch(/\b(EUR|USD|GBP) \d|\d (EUR|USD|GBP)\b/)
    }
  })
  it('still sees the verdicts, and others still see everything', async () => {
    const theirs = await ask('visitor', `${site}/verdicts.csv`)
    expect(theirs.text).toBe((await ask('Lea', `${site}/verdicts.csv`)).text)
    const [note = ''] = notes
    expect((await ask('Lea', `${site}/plan.json`)).text).toContain(note)
    expect((await ask('client', `${site}/plan.json`)).text).toContain(note)
  })
})

describe('what is changed', () => {
  const note = (text: string) => new URLSearchParams({ intent: 'site', name: text, base: '1' })
  it('a lead changes what the site is; whoever works there does not, by whatever way', async () => {
    const proposal = (list: string, id: string, value: object) =>
      new URLSearchParams({
        back: site,
        proposal: JSON.stringify({ name: 'lay cables', about: [], edits: [{ list, id, base: 1, value }] }),
      })
    const policy = { ...demo.policy, margin: 30 }
    const taken = await ask('Wim', `${site}/take`, proposal('policy', 'policy', policy))
    expect(taken.to).toContain('refused=')
    const saved = await ask('Wim', `${site}/policy`, note('Mine'))
    expect([403, 422]).toContain(saved.status)
    expect((await ask('Lea', site)).text).not.toContain('Mine')
  })
  it('an observation stands under the name of whoever made it, whatever was sent', async () => {
    const value = {
      id: 'forged-1',
      at: '2026-11-01T10:00:00.000Z',
      by: 'Somebody Else',
      kind: 'look',
      subject: { cable: 'c-0001' },
      note: 'forged',
    }
    await ask(
      'Wim',
      `${site}/take`,
      new URLSearchParams({
        back: site,
        proposal: JSON.stringify({
          name: 'lay cables',
          about: [],
          edits: [{ list: 'observations', id: 'forged-1', base: null, value }],
        }),
      }),
    )
    const plan = JSON.parse((await ask('Lea', `${site}/plan.json`)).text)
    const kept = plan.observations.find(({ id }: { id: string }) => id === 'forged-1')
    expect(kept?.by ?? 'Wim').toBe('Wim')
    expect(JSON.stringify(plan)).not.toContain('Somebody Else')
  })
  it('stands in the history under the account, whatever name a browser gives', async () => {
    const cookie = `${cookies.Wim}; hallway-who=forged`
    const answer = await fetch(`${address}${site}/runs/r-13`, {
      method: 'POST',
      redirect: 'manual',
      headers: { cookie },
      body: new URLSearchParams({ intent: 'delete', base: '1' }),
    })
    expect(answer.status).toBe(302)
    expect((await ask('Lea', `${site}/history`)).text).toMatch(/Wim/)
  })
})

describe('sessions', () => {
  it('a cookie that was stolen opens nothing once its owner has signed out', async () => {
    const stolen = await signIn(address, 'Loe')
    cookies.thief = stolen
    expect((await ask('thief', site)).status).toBe(200)
    expect((await ask('thief', '/sign-out', new URLSearchParams())).to).toBe('/sign-in')
    expect((await ask('thief', site)).to).toMatch(/^\/sign-in/)
  })
  it('end with the password, but for the one that changed it', async () => {
    cookies.first = await signIn(address, 'Nol')
    cookies.second = await signIn(address, 'Nol')
    const next = 'another phrase, as long'
    const body = new URLSearchParams({ do: 'password', now: PASSWORD, next, again: next })
    expect((await ask('first', '/account', body)).status).toBe(302)
    expect((await ask('first', '/account')).status).toBe(200)
    expect((await ask('second', '/account')).to).toMatch(/^\/sign-in/)
    expect((await ask('second', '/account', body)).status).toBe(401)
    command(hallway.home, ['people', 'reset', 'Nol', '--password-stdin'], PASSWORD)
    expect((await ask('first', '/account')).to).toMatch(/^\/sign-in/)
    cookies.Nol = await signIn(address, 'Nol')
  })
  it('of another Hallway on this machine are not taken for ones of this', async () => {
    const other = createHash('sha256').update('another').digest('hex').slice(0, 10)
    const value = /=(.+?)(;|$)/.exec(cookies.Ada ?? '')?.[1] ?? ''
    cookies.elsewhere = `hallway-session-${other}=${value}`
    expect((await ask('elsewhere', site)).to).toMatch(/^\/sign-in/)
  })
  it('a stream that a link opened ends with its day', async () => {
    cookies.guest = await linkOf('The guest')
    const stream = await fetch(`${address}${site}/live`, { headers: by('guest') })
    expect(stream.status).toBe(200)
    const knex = connect(hallway.databaseUrl())
    try {
      expect(
        await knex('site_keys')
          .where({ name: 'The guest' })
          .update({ until: new Date(Date.now() - 1000) }),
      ).toBe(1)
    } finally {
      await knex.destroy()
    }
    expect(await Promise.race([stream.text().then(() => 'ended'), wait(20_000, 'still open')])).toBe('ended')
  }, 60_000)
  it('a stream ends once its reader may no longer look', async () => {
    command(hallway.home, ['people', 'right', 'Nol', 'saltmarsh', 'look'])
    const stream = await fetch(`${address}${site}/live`, { headers: by('Nol') })
    expect(stream.status).toBe(200)
    command(hallway.home, ['people', 'right', 'Nol', 'saltmarsh', 'none'])
    const ended = (async () => {
      await stream.text()
      return 'ended'
    })()
    expect(await Promise.race([ended, wait(20_000, 'still open')])).toBe('ended')
    // the page asks for it again, and must not be given a page to sign in
    const again = { ...by('stranger'), accept: 'text/event-stream' }
    expect((await fetch(`${address}${site}/live`, { headers: again, redirect: 'manual' })).status).toBe(401)
  }, 60_000)
})

describe('a page that is kept', () => {
  /** As React writes a text, and as a script holds it. */
  const written = (text: string): string =>
    text
      .replace(/&/g, '&amp;')
      .replace(/</g, '&lt;')
      .replace(/>/g, '&gt;')
      .replace(/"/g, '&quot;')
      .replace(/'/g, '&#x27;')
  const plain = (text: string): string => text.replace(/nonce="[^"]*"|"nonce":"[^"]*"/g, '')
  it('goes to each under their own name, and shows nobody more than their right', { timeout: 120_000 }, async () => {
    const odd = `Zo\u00eb "Z" O'Hara & <b>`
    for (const name of ['Wes Alder', odd]) {
      command(hallway.home, ['people', 'add', name, '--password-stdin'], PASSWORD)
      command(hallway.home, ['people', 'right', name, 'saltmarsh', 'work'])
      cookies[name] = await signIn(address, name)
    }
    const own = ['Ada', 'Lea', 'Wim', 'Wes Alder', odd, 'Loe']
    for (const path of [site, `${site}/needs`, `${site}/survey`, `${site}/reach`, `${site}/install`]) {
      // what those see who are kept from some of it, before anybody else has looked; and once all have
      const before = plain((await ask('visitor', path)).text)
      for (let round = 0; round < 2; round += 1)
        for (const who of own) {
          const { text } = await ask(who, path)
          expect(text, `${who} at ${path}`).toContain(`>${written(who)}</a>`)
          for (const other of own)
            if (other !== who) expect(text, `${who} at ${path}`).not.toContain(`>${written(other)}</a>`)
          expect(text).not.toMatch(/(name|id)-[0-9a-f]{8}-[0-9a-f]{4}-4/)
        }
      expect(plain((await ask('visitor', path)).text)).toBe(before)
      // of those who may do the same only what is theirs differs: one page is kept for all of them
      const [wim, wes] = [(await ask('Wim', path)).text, (await ask('Wes Alder', path)).text]
      const neutral = (text: string, name: string) => {
        const told = plain(text).replace(/\\"/g, '"').replaceAll(name, 'NAME')
        const [, id = 'none'] = /"account",.{0,80}?"id","([0-9a-f-]{36})"/.exec(told) ?? []
        return told.replaceAll(id, 'ID')
      }
      expect(neutral(wim, 'Wim')).toBe(neutral(wes, 'Wes Alder'))
    }
  })
})

describe('coming in', () => {
  it('an invitation is used once', async () => {
    const said = command(hallway.home, ['people', 'add', 'Eva'])
    const [, path = ''] = /127\.0\.0\.1:\d+(\/welcome\/\S+)/.exec(said) ?? []
    const body = () => new URLSearchParams({ password: PASSWORD, again: PASSWORD })
    const both = await Promise.all([ask('stranger', path, body()), ask('stranger', path, body())])
    expect(both.map(({ status }) => status).sort()).toEqual([302, 422])
    expect((await ask('stranger', path)).text).toContain('has ended')
    expect(await signIn(address, 'eva')).toContain('hallway-session')
  })
  it('a link and a token open the one site, neither in place of the other, and nothing once taken back', async () => {
    const bearer = (text: string, path: string) =>
      fetch(`${address}${path}`, { headers: { Authorization: `Bearer ${text}` }, redirect: 'manual' })
    expect((await bearer(token, `${site}/plan.json`)).status).toBe(200)
    expect((await bearer(token, '/sites/other')).status).toBe(404)
    expect((await ask('stranger', `/look/${token}`)).status).toBe(410)
    const link = cookies.client?.split('=')[1] ?? ''
    expect((await bearer(link, `${site}/plan.json`)).headers.get('location')).toMatch(/^\/sign-in/)
    const page = (await ask('Lea', `${site}/people`)).text
    for (const [, key = ''] of page.matchAll(/name="key" value="([^"]+)"/g))
      await ask('Lea', `${site}/people`, new URLSearchParams({ do: 'back', key }))
    expect((await bearer(token, `${site}/plan.json`)).status).toBe(302)
    expect((await ask('client', site)).to).toMatch(/^\/sign-in/)
  })
  it('the log holds no invitation, no link and no password', () => {
    expect(hallway.said()).not.toContain(PASSWORD)
    expect(hallway.said()).not.toMatch(/\/(welcome|look)\/[\w-]{20}/)
  })
  it('whoever guesses is held up, in the same words for names that nobody has, and the owner of the name is not', async () => {
    const guess = (name: string) =>
      ask('stranger', '/sign-in', new URLSearchParams({ name, password: 'a wrong but long phrase', to: '/' }))
    const words = ({ text }: { text: string }) => /do not go together|Too many tries/.exec(text)?.[0]
    const known = [await guess('Lea'), await guess('Nobody')]
    expect(known.map(words)).toEqual(['do not go together', 'do not go together'])
    let held = 0
    for (let go = 0; go < 12; go += 1) if ((await guess('Lea')).status === 429) held += 1
    expect(held).toBeGreaterThan(0)
    // her browser, which was signed in before, goes on
    expect((await ask('Lea', site)).status).toBe(200)
  })
  it('links and tokens end with the account that made them, or are taken over by whoever retires it', async () => {
    for (const [name, how] of [
      ['Kim', 'retire'],
      ['Kai', 'retire and take over'],
    ] as const) {
      command(hallway.home, ['people', 'add', name, '--password-stdin'], PASSWORD)
      command(hallway.home, ['people', 'right', name, 'saltmarsh', 'work'])
      command(hallway.home, ['people', 'right', name, 'saltmarsh', 'lead'])
      cookies[name] = await signIn(address, name)
      const script = await makeKey('token', `The script of ${name}`, '', name)
      const asked = () =>
        fetch(`${address}${site}/plan.json`, { headers: { authorization: `Bearer ${script}` }, redirect: 'manual' })
      expect((await asked()).status).toBe(200)
      expect((await ask('Ada', '/people')).text).toContain(`The script of ${name}`)
      expect((await ask('Ada', '/people', new URLSearchParams({ name, do: how }))).status).toBe(302)
      expect((await asked()).status).toBe(how === 'retire' ? 302 : 200)
    }
    expect((await ask('Lea', `${site}/people`)).text).toMatch(/The script of Kai[\s\S]{0,2000}Ada/)
  })
  it('whoever is retired is out at once, and the name is nobody else’s', async () => {
    command(hallway.home, ['people', 'retire', 'Loe'])
    expect((await ask('Loe', site)).to).toMatch(/^\/sign-in/)
    expect(() => command(hallway.home, ['people', 'add', 'LOE'])).toThrow(/never given to somebody else/)
    expect(() => command(hallway.home, ['people', 'retire', 'Ada'])).toThrow(/Nobody would be left/)
    expect(() => command(hallway.home, ['people', 'right', 'Lea', 'saltmarsh', 'none'])).toThrow(
      /Nobody would be left who leads/,
    )
  })
})
