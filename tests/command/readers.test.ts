import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { COPY_SHAPE } from '../../app/site-copy'
import type { Plan } from '../../core/plan/plan'
import { demo } from '../support/demo-plan'
import { type HallwayProcess, type Somebody, signIn, startHallway } from '../support/hallway-process'
import { filledIn, patterns } from '../support/site-routes'

// A site in which every note and every price is marked, read at every address there is by every sort of reader: in pages, their data, files, streams and errors.

const PORT = 4376
const address = `http://127.0.0.1:${PORT}`
const NOTE = 'markednoteqx'
const PRICE = 4_271.55
/** A price as JSON, a table and a page write it. */
const PRICES = /4[ ,.\u00a0\u202f]?271[.,]5/

const people = [
  { name: 'Ada', may: 'admin' },
  { name: 'Pia', may: 'nothing' },
  { name: 'Noa', may: 'nothing' },
  { name: 'Bo', may: 'nothing' },
  { name: 'Zoe', may: 'nothing' },
] as const satisfies readonly Somebody[]
/** What each may do on the marked site. All of them work on another. */
const HELD = { Pia: 'look prices', Noa: 'look notes', Bo: 'look prices notes', Zoe: 'none' } as const
type Reader = keyof typeof HELD | 'link'
const keptFrom = (reader: Reader, detail: 'prices' | 'notes'): boolean =>
  reader === 'link' || reader === 'Zoe' || HELD[reader].includes(detail)

/** The demo with a mark in every text that somebody wrote, and a price that is found again wherever there is one. */
function markedPlan(): Plan {
  const written = ['note', 'conditions', 'less', 'why', 'reason', 'saw', 'line', 'how']
  const plan = JSON.parse(
    JSON.stringify(demo, (key, value) =>
      written.includes(key) &&
      typeof value === 'string' &&
      !['found', 'noted', 'not found', 'went away', 'nothing wrong'].includes(value)
        ? `${NOTE} ${key}`
        : ['price', 'wantsPrice', 'delivery', 'freeFrom'].includes(key)
          ? PRICE
          : value,
    ),
  ) as Plan
  const note = `${NOTE} note`
  for (const list of [
    'floors',
    'places',
    'pathways',
    'devices',
    'kinds',
    'cables',
    'runs',
    'needs',
    'upgrades',
    'suppliers',
    'orders',
    'sessions',
  ] as const)
    for (const entity of plan[list]) entity.note = note
  for (const observation of plan.observations) observation.note = note
  for (const run of plan.runs.slice(0, 3)) run.waits = { why: `${NOTE} waits`, on: '2026-11-30' }
  for (const kind of plan.kinds) kind.avoid = { why: `${NOTE} avoided`, on: '2026-11-30' }
  for (const search of plan.searches) if (search.ended) search.ended.words = `${NOTE} ended`
  for (const line of plan.orderLines.slice(0, 1)) line.back = [{ on: '2026-11-30', count: 1, why: `${NOTE} back` }]
  for (const handover of plan.handovers) handover.open = [`${NOTE} open`]
  plan.policy.equipment = { dock: PRICE, hub: PRICE, charger: PRICE, 'extender pair': PRICE }
  const [first, second] = plan.observations.filter(({ subject }) => 'cable' in subject)
  if (first)
    plan.observations.push({
      id: 'marked-retraction',
      at: '2026-11-30T10:00:00.000Z',
      subject: first.subject,
      kind: 'retraction',
      retracts: second?.id ?? first.id,
      reason: `${NOTE} taken back`,
    })
  plan.site = { ...plan.site, id: 'marked', name: 'Marked hall', note: `${NOTE} site` }
  return plan
}

/** A site without runs: its leads are offered to the others. */
function markedStore(): object {
  const { format, version, site, policy, kinds, cables, observations } = markedPlan()
  return {
    format,
    version,
    policy,
    kinds,
    site: { ...site, id: 'marked-store', name: 'Marked store' },
    cables: cables.map(({ suppliedWith: _, ...cable }) => cable),
    observations: observations.filter(({ subject, kind }) => 'cable' in subject && kind === 'statement'),
  }
}

let hallway: HallwayProcess
const cookies: Record<string, string> = {}
const plan = markedPlan()
let asked = 0

type Asked = { status: number; text: string }
async function ask(who: string, path: string, init: RequestInit = {}): Promise<Asked> {
  asked += 1
  const answer = await fetch(`${address}${path}`, {
    redirect: 'manual',
    ...init,
    headers: {
      ...init.headers,
      cookie: cookies[who] ?? '',
      // what is costly is counted by where it comes from
      'x-forwarded-for': `198.51.100.${Math.floor(asked / 20) % 250}`,
      host: `127.0.0.1:${PORT}`,
    },
  })
  // a page that is sent on is told where; a stream is heard for a moment
  if (!path.includes('/live'))
    return { status: answer.status, text: `${answer.headers.get('location') ?? ''} ${await answer.text()}` }
  const parts = answer.body?.pipeThrough(new TextDecoderStream()).getReader()
  const first = await parts?.read()
  await parts?.cancel()
  return { status: answer.status, text: first?.value ?? '' }
}
const form = (fields: Record<string, string>): RequestInit => ({ method: 'POST', body: new URLSearchParams(fields) })

beforeAll(async () => {
  hallway = await startHallway(PORT, { people, environment: { HALLWAY_URL: address } })
  for (const { name } of people) cookies[name] = await signIn(address, name)
  for (const bring of [plan, markedStore(), { ...demo, site: { ...demo.site, id: 'own', name: 'Own hall' } }]) {
    const body = new FormData()
    body.set('file', new File([JSON.stringify(bring)], 'plan.json'))
    const { status, text } = await ask('Ada', '/import', { method: 'POST', body })
    expect(status, text.slice(0, 2000)).toBe(302)
  }
  const page = await ask('Ada', '/sites/marked/people')
  for (const [name, held] of Object.entries(HELD)) {
    const [, person = ''] = new RegExp(`<option value="([0-9a-f-]{36})"[^>]*>${name}<`).exec(page.text) ?? []
    for (const [site, right] of [
      ['marked', held],
      ['marked-store', held],
      ['own', 'work'],
    ] as const)
      expect((await ask('Ada', `/sites/${site}/people`, form({ do: 'right', person, held: right }))).status, name).toBe(
        302,
      )
  }
  const made = await ask(
    'Ada',
    '/sites/marked/people.data',
    form({ do: 'key', sort: 'link', name: 'The client', held: 'look', hides: 'prices notes', until: '' }),
  )
  const [secret = ''] = /\/look\/[\w-]{43}/.exec(made.text) ?? []
  const looked = await fetch(`${address}${secret}`, { redirect: 'manual' })
  cookies.link = looked.headers.getSetCookie()[0]?.split(';')[0] ?? ''
})
afterAll(() => hallway.stop())

/** Every address of the marked site, and those that tell of it elsewhere; each as a page and as its data. */
const paths = [
  ...patterns
    .filter((pattern) => !/sign-out|^\/\*|:invitation|:link/.test(pattern))
    .map((pattern) => filledIn(pattern, plan)),
  ...[
    '',
    '/elsewhere',
    '/record',
    '/record/record.csv',
    '/record/advice.csv',
    '/record/sockets.csv',
    '/order',
    '/compare',
    '/find?q=marked',
    '/history',
  ].map((page) => `/sites/own${page}`),
  `/sites/marked/find?q=${NOTE.slice(0, -2)}`,
  `/sites/marked/copy?place=1&identity=x&shape=${COPY_SHAPE}`,
  `/sites/marked/changes?since=1&shape=${COPY_SHAPE}`,
].flatMap((path) => (path === '' || path === '/' ? ['/', '/_root.data'] : [path, path.replace(/(\?|$)/, '.data$1')]))

describe('what a reader is kept from', () => {
  it.each(['Pia', 'Noa', 'Bo', 'Zoe', 'link'] as const)('is told to %s at no address', async (reader) => {
    const told: string[] = []
    let shown = 0
    for (const path of paths) {
      const { status, text } = await ask(reader, path)
      if (status === 200) shown += 1
      if (keptFrom(reader, 'notes') && text.includes(NOTE)) told.push(`a note at ${path}`)
      if (keptFrom(reader, 'prices') && PRICES.test(text)) told.push(`a price at ${path}`)
      if (status >= 500) told.push(`${status} at ${path}`)
    }
    expect(told).toEqual([])
    // or it would be nothing that is told nowhere
    expect(shown).toBeGreaterThan(reader === 'Zoe' ? 10 : 25)
  })
  it('is told to those who are not, so that the marks are found where they are', async () => {
    const found = { notes: 0, prices: 0 }
    for (const path of paths) {
      const { text } = await ask('Ada', path)
      if (text.includes(NOTE)) found.notes += 1
      if (PRICES.test(text)) found.prices += 1
    }
    expect(found.notes).toBeGreaterThan(20)
    expect(found.prices).toBeGreaterThan(4)
    expect((await ask('Noa', '/sites/marked/plan.json')).text).toMatch(PRICES)
    expect((await ask('Pia', '/sites/marked/plan.json')).text).toContain(NOTE)
    // and with every right on a site of their own, what kinds did at another is told without its notes and prices
    expect((await ask('Noa', '/sites/own/elsewhere')).status).toBe(200)
  })
  it('is no site at all to whoever has no right on it: each answer is that of a site that is not there', async () => {
    for (const page of ['', '/drawer', '/plan.json', '/copy', '/live', '/changes?since=1']) {
      const [hidden, none] = [await ask('Zoe', `/sites/marked${page}`), await ask('Zoe', `/sites/never-made${page}`)]
      expect(hidden.status, page).toBe(none.status)
    }
    const decided = (site: string) =>
      form({
        base: '1',
        decided: JSON.stringify({
          runs: [{ run: demo.runs[0]?.id, leads: [{ cable: `${site}:c-0001`, reversed: false }] }],
          alters: [],
          lines: [],
        }),
      })
    const answers = [
      await ask('Zoe', '/sites/own/order', decided('marked-store')),
      await ask('Zoe', '/sites/own/order', decided('never-made')),
    ]
    expect(answers[0]?.status).toBe(answers[1]?.status)
    for (const { text } of answers) expect(text).not.toContain('Marked')
  })
})
