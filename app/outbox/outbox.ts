import { AS_HEADER, bodyOf, bytesOf, type Item } from './item'
import type { Keep } from './keep'

/** Why something waits: no line to Hallway, its database away, a disk without room, too much asked in a minute, or nobody signed in. */
export type Why = 'line' | 'database' | 'disk' | 'busy' | 'signed out'

/** A form on its way. */
export type Waiting =
  | { item: Item; state: 'sending' }
  | { item: Item; state: 'waiting'; why: Why }
  /** Sent from a page that is gone, and answered: taken, or not and with which status. */
  | { item: Item; state: 'taken' }
  | { item: Item; state: 'refused'; status: number }

export type Shown = {
  waiting: readonly Waiting[]
  /** Pages wait to be read for want of a line. */
  reading: boolean
}

/** What the outbox needs of its browser. */
export type Surroundings = {
  fetch: typeof fetch
  keep: Keep
  /** After so long, or as soon as the line is back. */
  pause(ms: number): Promise<void>
  /** Does something when no other page, and nothing else of this one, does the like; where the browser can tell. */
  inTurn(name: string, work: () => Promise<void>): Promise<void>
  /** The same, but leaves it to whoever does it now. */
  unlessDone(name: string, work: () => Promise<void>): Promise<void>
}

/** Answers of what stands in front of Hallway, or of Hallway without its database: what was sent may or may not have come through. */
const NOT_CERTAIN = new Set([502, 503, 504])
const TOO_MUCH = 429
/** Whoever sent it was signed out meanwhile. */
const SIGNED_OUT = 401
const FIRST_PAUSE_MS = 1000
const LONGEST_PAUSE_MS = 15_000
/** Without an answer for so long, a line is taken for broken; what is large has longer. */
const PATIENCE_MS = 30_000
const SLOWEST_BYTES_A_MS = 20
/** How long it is said that something of an earlier page was saved. */
const TOLD_MS = 12_000

/**
 * All forms go out through here. One that gets no answer, or one that leaves it open whether it was saved, is sent again under the same id until there is one; the
 * page that sent it waits as it is. It is kept meanwhile, so that a page that is opened anew goes on with it.
 */
export class Outbox {
  readonly #around: Surroundings
  readonly #waiting = new Map<string, Waiting>()
  readonly #listeners = new Set<() => void>()
  #reading = 0
  #shown: Shown = { waiting: [], reading: false }

  constructor(around: Surroundings) {
    this.#around = around
  }

  /** For `useSyncExternalStore`. */
  readonly subscribe = (listener: () => void): (() => void) => {
    this.#listeners.add(listener)
    return () => void this.#listeners.delete(listener)
  }
  readonly shown = (): Shown => this.#shown

  #tell(): void {
    this.#shown = { waiting: [...this.#waiting.values()], reading: this.#reading > 0 }
    for (const listener of this.#listeners) listener()
  }
  #set(entry: Waiting): void {
    this.#waiting.set(entry.item.id, entry)
    this.#tell()
  }
  #drop(id: string): void {
    if (this.#waiting.delete(id)) this.#tell()
  }

  /** Sends a form and answers what Hallway answers, however long that takes. Whoever leaves the page gives up the answer, not the form. */
  async send(item: Item, left?: AbortSignal | null): Promise<Response> {
    const answered = new Promise<Response>((answer, failed) => {
      void this.#around.inTurn(item.id, () => this.#deliver(item, () => left?.aborted ?? false).then(answer, failed))
    })
    if (!left) return answered
    return new Promise((answer, gone) => {
      const leave = () => {
        gone(left.reason)
        void answered.then((response) => this.#told(item, response))
      }
      if (left.aborted) leave()
      else left.addEventListener('abort', leave, { once: true })
      void answered.then((response) => {
        left.removeEventListener('abort', leave)
        answer(response)
      }, gone)
    })
  }

  /** Goes on with what pages that are gone have left. */
  async goOn(): Promise<void> {
    for (const item of await this.#around.keep.all()) {
      if (this.#waiting.has(item.id)) continue
      void this.#around.unlessDone(item.id, async () => this.#told(item, await this.#deliver(item, () => true)))
    }
  }

  /** Forgets something that was refused, or whose saving has been read. */
  async forget(id: string): Promise<void> {
    // first from what is kept: a page that is opened at once would send it again
    await this.#around.keep.remove(id)
    this.#drop(id)
  }

  /** Sends until there is an answer that says whether it was saved. What was refused once its page is gone stays kept: nothing else shows it. */
  async #deliver(item: Item, pageIsGone: () => boolean): Promise<Response> {
    void this.#around.keep.put(item)
    this.#waiting.set(item.id, { item, state: 'sending' })
    for (let pause = FIRST_PAUSE_MS; ; pause = Math.min(LONGEST_PAUSE_MS, 2 * pause)) {
      const answer = await this.#ask(item)
      if (answer instanceof Response) {
        this.#drop(item.id)
        if (answer.status < 400 || !pageIsGone()) await this.#around.keep.remove(item.id)
        return answer
      }
      this.#set({ item, state: 'waiting', why: answer })
      await this.#around.pause(pause)
    }
  }

  async #ask(item: Item): Promise<Response | Why> {
    const signal = AbortSignal.timeout(PATIENCE_MS + Math.ceil(bytesOf(item) / SLOWEST_BYTES_A_MS))
    try {
      const sent = { method: 'POST', body: bodyOf(item), signal, headers: asHeaders(item) }
      const answer = await whole(await this.#around.fetch(item.url, sent))
      if (answer.status === TOO_MUCH) return 'busy'
      if (answer.status === SIGNED_OUT) return 'signed out'
      return NOT_CERTAIN.has(answer.status) ? await this.#whyNot() : answer
    } catch {
      return 'line'
    }
  }

  /** Hallway answers, but cannot save: which of the two it is. */
  async #whyNot(): Promise<Why> {
    try {
      const answer = await this.#around.fetch('/health', { signal: AbortSignal.timeout(5000) })
      const { disk } = (await answer.json()) as { disk?: string }
      return disk === 'full' ? 'disk' : 'database'
    } catch {
      return 'line'
    }
  }

  /** Says what became of a form whose page is gone. What was not taken is kept until somebody has read it. */
  async #told(item: Item, { status }: Response): Promise<void> {
    if (status >= 400) {
      this.#set({ item, state: 'refused', status })
      void this.#around.keep.put(item)
      return
    }
    this.#set({ item, state: 'taken' })
    await this.#around.pause(TOLD_MS)
    this.#drop(item.id)
  }

  /** Reads what a page is made of; without a line it waits for one, for as long as somebody wants the page. */
  async read(input: RequestInfo | URL, init?: RequestInit): Promise<Response> {
    let waits = false
    try {
      for (let pause = FIRST_PAUSE_MS; ; pause = Math.min(LONGEST_PAUSE_MS, 2 * pause)) {
        try {
          return await whole(await this.#around.fetch(input, init))
        } catch (error) {
          if (init?.signal?.aborted || !(error instanceof TypeError)) throw error
        }
        if (!waits) {
          waits = true
          this.#reading += 1
          this.#tell()
        }
        await this.#around.pause(pause)
        init?.signal?.throwIfAborted()
      }
    } finally {
      if (waits) {
        this.#reading -= 1
        this.#tell()
      }
    }
  }
}

/** Says whose it is, where people have accounts. */
const asHeaders = ({ as }: Item): Record<string, string> => (as ? { [AS_HEADER]: as } : {})

/** An answer with all of its body, so that a line that breaks in the middle of it is no answer. */
async function whole(answer: Response): Promise<Response> {
  const { status, statusText, headers } = answer
  const body = await answer.arrayBuffer()
  return new Response(NO_BODY.has(status) ? null : body, { status, statusText, headers })
}
const NO_BODY = new Set([101, 204, 205, 304])
