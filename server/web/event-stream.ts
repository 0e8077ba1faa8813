import { gauge } from '../gauge'

const openStreams = gauge({ name: 'hallway_streams', help: 'Event streams that are open' })

/** Tells an event, with its data as JSON. */
export type Tell = (event: string, data: unknown) => void

/** What tells: it may also send its reader away. Answers how it is stopped. */
type Begin = (tell: Tell, leave: () => void) => () => void

/** Proxies and browsers drop a line on which nothing is said. */
const SAY_SOMETHING_MS = 20_000
/** What may wait for a reader that is slow. Beyond it the stream ends: the page opens another and catches up, which costs less than all it missed. */
const MOST_WAITING_BYTES = 64_000

const headers = {
  'Content-Type': 'text/event-stream; charset=utf-8',
  // held back to be compressed, an event would come late
  'Cache-Control': 'no-cache, no-transform',
}

/**
 * Server-sent events for as long as somebody reads them. `begin` starts what tells, and answers how that is stopped; it is stopped once, whichever way the
 * reader leaves: before the stream began, by closing the line, by reading too slowly, or by being sent away. Whoever asks only for the headers gets no stream.
 */
export function eventStream({ method, signal }: Request, begin: Begin): Response {
  if (method === 'HEAD' || signal.aborted) return new Response(null, { headers })
  const line = new Line(signal)
  const body = new ReadableStream<Uint8Array>(
    {
      start: (controller) => line.open(controller, begin),
      cancel: () => line.end(),
    },
    new ByteLengthQueuingStrategy({ highWaterMark: MOST_WAITING_BYTES }),
  )
  return new Response(body, { headers })
}

/** One reader's line, from its opening to its end. */
class Line {
  readonly #signal: AbortSignal
  readonly #encoder = new TextEncoder()
  #controller: ReadableStreamDefaultController<Uint8Array> | null = null
  #timer: ReturnType<typeof setInterval> | undefined
  #stop = () => {}
  readonly #left = () => this.end()

  constructor(signal: AbortSignal) {
    this.#signal = signal
  }

  open(controller: ReadableStreamDefaultController<Uint8Array>, begin: Begin): void {
    this.#controller = controller
    openStreams.inc()
    this.#timer = setInterval(() => this.#say(': still here\n\n'), SAY_SOMETHING_MS)
    this.#signal.addEventListener('abort', this.#left)
    const stop = begin(
      (event, data) => this.#say(`event: ${event}\ndata: ${JSON.stringify(data)}\n\n`),
      () => this.end(),
    )
    // what it told at once may have been too much already
    if (this.#controller === null) stop()
    else this.#stop = stop
  }

  #say(text: string): void {
    if (this.#controller === null) return
    if ((this.#controller.desiredSize ?? 0) <= 0) this.end()
    else this.#controller.enqueue(this.#encoder.encode(text))
  }

  end(): void {
    const controller = this.#controller
    if (controller === null) return
    this.#controller = null
    openStreams.dec()
    clearInterval(this.#timer)
    this.#signal.removeEventListener('abort', this.#left)
    this.#stop()
    try {
      controller.close()
    } catch {
      // its reader closed it
    }
  }
}
