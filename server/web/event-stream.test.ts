import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { eventStream, type Tell } from './event-stream'

beforeEach(() => void vi.useFakeTimers())
afterEach(() => void vi.useRealTimers())

/** A stream and what goes on behind it. */
function opened(init: RequestInit = {}, atOnce?: (tell: Tell) => void) {
  const told: { tell: Tell | null; begun: number; stopped: number } = { tell: null, begun: 0, stopped: 0 }
  const response = eventStream(new Request('http://hallway/live', init), (tell) => {
    told.begun += 1
    told.tell = tell
    atOnce?.(tell)
    return () => {
      told.stopped += 1
    }
  })
  return { told, response }
}
const text = async (reader: ReadableStreamDefaultReader<Uint8Array>) =>
  new TextDecoder().decode((await reader.read()).value)
const nothingLeft = ({ begun, stopped }: { begun: number; stopped: number }) => {
  expect(stopped).toBe(begun)
  expect(vi.getTimerCount()).toBe(0)
}

describe('events', () => {
  it('are told as they come, and now and then that somebody is still there', async () => {
    const { told, response } = opened()
    expect(response.headers.get('content-type')).toContain('text/event-stream')
    const reader = (response.body as ReadableStream<Uint8Array>).getReader()
    told.tell?.('place', 7)
    expect(await text(reader)).toBe('event: place\ndata: 7\n\n')
    vi.advanceTimersByTime(20_000)
    expect(await text(reader)).toMatch(/^:/)
    await reader.cancel()
    nothingLeft(told)
    told.tell?.('place', 8)
  })
  it.each([
    ['the line is closed', async (away: AbortController) => away.abort()],
    ['the reader leaves', async (_: AbortController, body: ReadableStream) => body.cancel()],
    [
      'both happen',
      async (away: AbortController, body: ReadableStream) => {
        await body.cancel()
        away.abort()
      },
    ],
  ])('end once %s, and leave nothing behind', async (_why, leave) => {
    const away = new AbortController()
    const { told, response } = opened({ signal: away.signal })
    expect(told.begun).toBe(1)
    await leave(away, response.body as ReadableStream)
    nothingLeft(told)
  })
  it.each([
    ['only the headers are asked for', { method: 'HEAD' }],
    ['the page was left while it loaded', { signal: AbortSignal.abort() }],
  ])('do not begin where %s', (_why, init) => {
    const { told, response } = opened(init)
    expect(told.begun).toBe(0)
    expect(response.body).toBeNull()
    nothingLeft(told)
  })
  it('do not pile up for who reads slowly: the stream ends, and the reader still gets what was waiting', async () => {
    const { told, response } = opened()
    for (let at = 0; at < 10_000; at += 1) told.tell?.('sample', 'x'.repeat(100))
    nothingLeft(told)
    const waiting = new Uint8Array(await response.arrayBuffer())
    expect(waiting.length).toBeGreaterThan(60_000)
    expect(waiting.length).toBeLessThan(70_000)
  })
  it('end where all that was told at once was too much already', () => {
    const { told } = opened({}, (tell) => {
      for (let at = 0; at < 1000; at += 1) tell('sample', 'x'.repeat(1000))
    })
    nothingLeft(told)
  })
})
