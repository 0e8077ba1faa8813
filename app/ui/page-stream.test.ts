import { afterEach, expect, it, vi } from 'vitest'
import { openPageStream } from './page-stream'

/** A browser's stream, as far as a page hears it. */
class FakeSource {
  static CLOSED = 2
  static last: FakeSource
  readyState = 0
  onopen = () => {}
  onerror = () => {}
  constructor() {
    FakeSource.last = this
  }
  addEventListener(): void {}
  close(): void {}
}

afterEach(() => vi.unstubAllGlobals())

it('tells that the line is back once a stream that was lost is open again, and not as it opens first', async () => {
  vi.stubGlobal('EventSource', FakeSource)
  vi.stubGlobal('navigator', {})
  vi.stubGlobal('document', { visibilityState: 'visible', addEventListener() {}, removeEventListener() {} })
  const back = vi.fn()
  const lost = vi.fn()
  const stream = openPageStream('/sites/one/live', { ask: () => {}, back })
  stream.hear('lost', lost)
  await vi.waitFor(() => expect(FakeSource.last).toBeDefined(), { timeout: 60_000 })
  FakeSource.last.onopen()
  expect(back).not.toHaveBeenCalled()
  FakeSource.last.onerror()
  expect(lost).toHaveBeenCalledTimes(1)
  FakeSource.last.onopen()
  expect(back).toHaveBeenCalledTimes(1)
  // told once for each loss
  FakeSource.last.onopen()
  expect(back).toHaveBeenCalledTimes(1)
  stream.end()
})
