import { randomUUID } from 'node:crypto'
import { setTimeout as wait } from 'node:timers/promises'
import { z } from 'zod'
import { type InstrumentLine, isDrop } from '../../core/series/instrument-lines'

/** Lines that wait are sent together so often, and no more at once. */
const SEND_EVERY_MS = 2000
const MOST_AT_ONCE = 2000
/** Beyond so many that wait, an instrument sends faster than Hallway takes: of those every second one is let go. */
const MOST_WAITING = 20_000
/** A Hallway that is away is asked again, for so long. */
const PATIENCE_MS = 120_000
/** What lets an instrument in where people have accounts; from the surroundings, as a command line can be read by others. */
const TOKEN_VARIABLE = 'HALLWAY_TOKEN'
/** What a server answers to whoever sends more than it takes in a minute. */
const TOO_OFTEN = 429

/** What Hallway answers to a batch. */
const answerSchema = z.object({
  do: z.enum(['go on', 'send again', 'stop']),
  from: z.number().optional(),
  problem: z.string().optional(),
  drop: z.string().optional(),
  written: z.array(z.string()).optional(),
  problems: z.array(z.string()).optional(),
})
/** Whether more comes behind a batch. */
type Part = 'more' | 'last'
type Answer = z.output<typeof answerSchema>

/** One instrument's line to Hallway: batches, each behind the one before, kept here until they were kept there. */
export class InstrumentSender {
  readonly #series = randomUUID()
  #waiting: InstrumentLine[] = []
  #acknowledged = 0
  #letGo = 0
  #ended = false
  #sending: Promise<Answer | null> | null = null
  #timer: ReturnType<typeof setTimeout> | undefined
  #stopped = false

  constructor(
    readonly address: string,
    readonly run: string,
    readonly name: string,
    readonly say: (text: string) => void,
    /** Told once that nothing more is taken. */
    readonly whenStopped: () => void,
  ) {}

  get stopped(): boolean {
    return this.#stopped
  }

  #stop(): void {
    if (this.#stopped) return
    this.#stopped = true
    this.whenStopped()
  }

  take(line: InstrumentLine): void {
    this.#waiting.push(line)
    if (this.#waiting.length > MOST_WAITING) {
      const before = this.#waiting.length
      // what is being sent stays whole, and no drop is let go
      this.#waiting = this.#waiting.filter(
        (each, position) => position < MOST_AT_ONCE || position % 2 === 0 || isDrop(each),
      )
      this.#letGo += before - this.#waiting.length
    }
    if (isDrop(line)) this.#sendNow()
    else this.#timer ??= setTimeout(() => this.#sendNow(), SEND_EVERY_MS)
  }

  #sendNow(): void {
    clearTimeout(this.#timer)
    this.#timer = undefined
    // what comes while something is sent goes with the next
    if (this.#stopped || this.#sending) return
    this.#sending = this.#send('more').finally(() => {
      this.#sending = null
      if (this.#waiting.length > 0 && !this.#stopped && !this.#ended)
        this.#timer ??= setTimeout(() => this.#sendNow(), SEND_EVERY_MS)
    })
  }

  /** Sends what waits, and that it is over; whether all of it was written down. */
  async end(): Promise<boolean> {
    this.#ended = true
    clearTimeout(this.#timer)
    await this.#sending
    while (!this.#stopped && this.#waiting.length > MOST_AT_ONCE) if (!(await this.#send('more'))) return false
    const answer = this.#stopped ? null : await this.#send('last')
    for (const text of answer?.written ?? []) this.say(`${text}. Written down.`)
    for (const text of answer?.problems ?? []) this.say(text)
    if (this.#letGo > 0) this.say(`${this.#letGo} readings came too fast to be sent and were dropped.`)
    return answer !== null && answer.problem === undefined && (answer.problems ?? []).length === 0
  }

  async #send(part: Part): Promise<Answer | null> {
    const until = Date.now() + PATIENCE_MS
    for (;;) {
      const batch = this.#waiting.slice(0, MOST_AT_ONCE)
      const answer = await this.#ask(batch, part)
      if (answer === 'away') {
        if (Date.now() > until) {
          this.say('Hallway does not answer, so what came last was not kept.')
          this.#stop()
          return null
        }
        await wait(1000)
        continue
      }
      if (answer.problem) this.say(answer.problem)
      if (answer.drop) this.say(answer.drop)
      if (answer.do === 'send again') {
        const from = answer.from ?? 0
        if (from < this.#acknowledged) {
          this.say('Hallway lost readings that it had kept. Begin anew.')
          this.#stop()
          return null
        }
        continue
      }
      this.#waiting.splice(0, batch.length)
      this.#acknowledged += batch.length
      if (answer.do === 'stop') this.#stop()
      return answer
    }
  }

  async #ask(lines: readonly InstrumentLine[], part: Part): Promise<Answer | 'away'> {
    const body = new URLSearchParams({
      series: this.#series,
      run: this.run,
      instrument: this.name,
      from: String(this.#acknowledged),
      lines: lines.map((line) => JSON.stringify(line)).join('\n'),
      ...(part === 'last' ? { end: 'on' } : {}),
    })
    try {
      const token = process.env[TOKEN_VARIABLE]
      const sent = {
        method: 'POST',
        body,
        headers: {
          Origin: new URL(this.address).origin,
          ...(token ? { Authorization: `Bearer ${token}` } : {}),
        },
      }
      const answer = await fetch(this.address, sent)
      const text = await answer.text()
      const read = answerSchema.safeParse(parsedText(text))
      if (read.success) return read.data
      if (answer.status >= 500 || answer.status === TOO_OFTEN) return 'away'
      return { do: 'stop', problem: `Hallway refused it (${answer.status}): is ${this.address} the address of a site?` }
    } catch {
      return 'away'
    }
  }
}

function parsedText(text: string): unknown {
  try {
    return JSON.parse(text)
  } catch {
    return null
  }
}
