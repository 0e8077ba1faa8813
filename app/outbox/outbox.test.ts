import 'fake-indexeddb/auto'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { bodyOf, type Item, itemOf, typedIn } from './item'
import { browserKeep, type Keep } from './keep'
import { Outbox, type Surroundings } from './outbox'

/** A browser whose line, clock and locks the test holds in its hand. */
function surroundings(answers: (() => Response | Promise<Response>)[]) {
  const sent: { url: string; body: unknown; headers: unknown }[] = []
  const kept = new Map<string, Item>()
  const waits: (() => void)[] = []
  const turns = new Map<string, Promise<void>>()
  const keep: Keep = {
    put: async (item) => void kept.set(item.id, item),
    remove: async (id) => void kept.delete(id),
    all: async () => [...kept.values()],
  }
  const around: Surroundings = {
    keep,
    fetch: (async (input: RequestInfo | URL, init?: RequestInit) => {
      sent.push({ url: String(input), body: init?.body, headers: init?.headers })
      const answer = answers.shift()
      if (!answer) throw new TypeError('Failed to fetch')
      return answer()
    }) as typeof fetch,
    pause: () => new Promise((again) => waits.push(again)),
    inTurn: (name, work) => {
      const turn = (turns.get(name) ?? Promise.resolve()).then(work)
      turns.set(name, turn)
      return turn
    },
    unlessDone: async (name, work) => {
      if (turns.has(name)) return
      const turn = work()
      turns.set(name, turn)
      await turn
    },
  }
  return { around, sent, kept, waits }
}
const settle = () => new Promise((done) => setTimeout(done, 5))
const gone = () => Promise.reject(new TypeError('Failed to fetch'))
const ok = () => new Response('saved', { status: 200, headers: { 'X-Kind': 'page' } })
const form = (fields: Record<string, string>) => new URLSearchParams(fields)
let number = 0
const itemFor = (fields: Record<string, string>): Item => {
  const item = itemOf('http://hallway/sites/x/runs/y.data', form(fields), {
    page: '/sites/x/runs/y',
    at: 1,
    as: null,
    newId: () => `id-${++number}`,
  })
  if (!item) throw new Error('it is a form')
  return item
}

describe('a form in the outbox', () => {
  it('is sent as whose it is, where people have accounts, however much later', async () => {
    const { around, sent } = surroundings([ok, ok])
    await new Outbox(around).send({ ...itemFor({ note: 'x' }), as: 'ada' })
    await new Outbox(around).send(itemFor({ note: 'x' }))
    expect(sent.map(({ headers }) => headers)).toEqual([{ 'X-Hallway-As': 'ada' }, {}])
  })
  it('is itself, however it was packed, and bears one id', () => {
    const item = itemFor({ note: 'not to be lost', change: 'mine' })
    expect(item.id).toBe('mine')
    expect([...(bodyOf(item) as URLSearchParams)]).toEqual([
      ['note', 'not to be lost'],
      ['change', 'mine'],
    ])
    expect(itemFor({ note: 'x', change: '' }).id).toMatch(/^id-/)
    const packed = new FormData()
    packed.append('photo', new File(['light'], 'door.jpg'))
    packed.append('base', '7')
    const photo = itemOf('/walk.data', packed, { page: '/walk', at: 1, as: null, newId: () => 'new' })
    expect(photo && [...(bodyOf(photo) as FormData).keys()]).toEqual(['photo', 'base', 'change'])
    expect(photo && typedIn(photo)).toEqual([['photo', 'door.jpg']])
    expect(itemOf('/x', '{}', { page: '/', at: 1, as: null, newId: () => 'new' })).toBeNull()
  })
  it('that is answered at once waits nowhere', async () => {
    const { around, kept, waits } = surroundings([ok])
    const outbox = new Outbox(around)
    const answer = await outbox.send(itemFor({ note: 'a' }))
    expect([answer.status, answer.headers.get('X-Kind'), await answer.text()]).toEqual([200, 'page', 'saved'])
    expect(kept.size + waits.length).toBe(0)
    expect(outbox.shown().waiting).toEqual([])
  })
  it.each<[string, () => Response | Promise<Response>, string]>([
    ['the line is gone', gone, 'line'],
    [
      'the answer breaks off',
      () => new Response(new ReadableStream({ pull: (to) => to.error(new TypeError('cut')) })),
      'line',
    ],
    ['whoever stands in front finds nobody', () => new Response('', { status: 502 }), 'line'],
    ['too much was asked', () => new Response('', { status: 429 }), 'busy'],
    ['whoever sent it is signed out', () => new Response('', { status: 401 }), 'signed out'],
  ])('waits where %s, is kept, and is sent again as it was until it is answered', async (_what, first, why) => {
    const { around, sent, kept, waits } = surroundings([first])
    const outbox = new Outbox(around)
    const item = itemFor({ note: 'not to be lost' })
    const answer = outbox.send(item)
    await settle()
    expect(outbox.shown().waiting).toMatchObject([{ state: 'waiting', why }])
    expect(kept.get(item.id)).toEqual(item)
    for (let go = 0; go < 3; go += 1) {
      waits.shift()?.()
      await settle()
    }
    expect(outbox.shown().waiting).toHaveLength(1)
    around.fetch = (async (_input: RequestInfo | URL, init?: RequestInit) => {
      sent.push({ url: item.url, body: init?.body, headers: init?.headers })
      return ok()
    }) as typeof fetch
    waits.shift()?.()
    expect((await answer).status).toBe(200)
    const bodies = sent.filter(({ url }) => url === item.url).map(({ body }) => String(body))
    expect(bodies.length).toBeGreaterThan(4)
    expect(new Set(bodies).size).toBe(1)
    expect(kept.size).toBe(0)
  })
  it('tells a database that is away from a disk that is full', async () => {
    const away = () => new Response('', { status: 503 })
    for (const [disk, why] of [
      ['ok', 'database'],
      ['full', 'disk'],
    ]) {
      const { around } = surroundings([away, () => Response.json({ disk }, { status: 503 })])
      const outbox = new Outbox(around)
      void outbox.send(itemFor({ note: 'a' }))
      await settle()
      expect(outbox.shown().waiting).toMatchObject([{ state: 'waiting', why }])
    }
  })
  it('is not given up with the page: whoever leaves it hears later what became of it', async () => {
    for (const [answer, state] of [
      [ok, 'taken'],
      [() => new Response('', { status: 409 }), 'refused'],
    ] as const) {
      const { around, waits, kept } = surroundings([gone, answer])
      const outbox = new Outbox(around)
      const left = new AbortController()
      const item = itemFor({ note: 'a' })
      const sending = outbox.send(item, left.signal)
      await settle()
      left.abort()
      await expect(sending).rejects.toThrow()
      waits.shift()?.()
      await settle()
      expect(outbox.shown().waiting).toMatchObject([{ state, item }])
      // what was not taken stays until it is read
      expect(kept.has(item.id)).toBe(state === 'refused')
      await outbox.forget(item.id)
      expect(outbox.shown().waiting).toEqual([])
      expect(kept.size).toBe(0)
    }
  })
  it('that was refused once its page is gone is kept all the while, so that no reload comes too early', async () => {
    const { around, kept } = surroundings([() => new Response('', { status: 404 })])
    const item = itemFor({ note: 'a' })
    kept.set(item.id, item)
    const removed: string[] = []
    around.keep = {
      ...around.keep,
      // one that never comes to writing anything down
      put: () => new Promise(() => {}),
      remove: async (id) => void removed.push(id),
    }
    const outbox = new Outbox(around)
    await outbox.goOn()
    await settle()
    expect(outbox.shown().waiting).toMatchObject([{ state: 'refused', item }])
    expect(removed).toEqual([])
  })
  it('goes on after a reload, and no page sends what another is sending', async () => {
    const first = surroundings([gone])
    const item = itemFor({ note: 'a' })
    void new Outbox(first.around).send(item)
    await settle()
    expect(first.kept.size).toBe(1)
    const opened = surroundings([ok])
    opened.around.keep = first.around.keep
    const outbox = new Outbox(opened.around)
    await outbox.goOn()
    await settle()
    expect(outbox.shown().waiting).toMatchObject([{ state: 'taken' }])
    expect(first.kept.size).toBe(0)
    // the same twice is left to whoever has it
    await first.around.keep.put(item)
    await outbox.goOn()
    expect(opened.sent).toHaveLength(1)
  })
})

describe('what pages are made of', () => {
  it('waits for the line, and is not waited for by who goes elsewhere', async () => {
    const { around, waits } = surroundings([gone, gone, ok, gone])
    const outbox = new Outbox(around)
    const read = outbox.read('/sites/x.data')
    for (let go = 0; go < 2; go += 1) {
      await settle()
      expect(outbox.shown().reading).toBe(true)
      waits.shift()?.()
    }
    expect(await (await read).text()).toBe('saved')
    expect(outbox.shown().reading).toBe(false)
    const left = new AbortController()
    const other = outbox.read('/sites/x.data', { signal: left.signal })
    await settle()
    left.abort(new DOMException('left', 'AbortError'))
    waits.shift()?.()
    await expect(other).rejects.toThrow('left')
    expect(outbox.shown().reading).toBe(false)
  })
})

describe('what the browser keeps', () => {
  const databases: string[] = []
  const fresh = (): string => {
    databases.push(`outbox-${databases.length}`)
    return databases.at(-1) ?? ''
  }
  beforeEach(() => void databases.splice(0))
  afterEach(() => {
    for (const name of databases) indexedDB.deleteDatabase(name)
  })
  it('is there for the next page, and gone when it is taken out', async () => {
    const name = fresh()
    const item = itemFor({ note: 'a' })
    await browserKeep(name).put(item)
    expect(await browserKeep(name).all()).toEqual([item])
    await browserKeep(name).remove(item.id)
    expect(await browserKeep(name).all()).toEqual([])
  })
  it('is nothing where the browser has no database, and nobody is told off', async () => {
    const { open } = indexedDB
    indexedDB.open = () => {
      throw new DOMException('denied', 'SecurityError')
    }
    const keep = browserKeep(fresh())
    indexedDB.open = open
    await keep.put(itemFor({ note: 'a' }))
    expect(await keep.all()).toEqual([])
  })
})
