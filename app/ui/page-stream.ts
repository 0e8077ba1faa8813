import { createContext, useContext, useEffect, useRef } from 'react'

/** The one stream of a page. A browser opens six lines to one address, so whatever a page watches comes over this. */
export type PageStream = {
  /** Hears an event until the answer is called. `lost` is heard where what is watched does not answer. */
  hear(event: string, listener: (data: string) => void): () => void
  /** Also watches a topic, until the answer is called. A page that does is kept informed while nobody looks at it. */
  watch(topic: string, of: string): () => void
  end(): void
}

/** Of the six lines, so many go to streams of all pages together; the rest are for what pages fetch. */
const MOST_STREAMS = 4
/** A page without a stream asks as often. */
const ASK_EVERY_MS = 10_000
/** A stream that was refused is asked for again. */
const AGAIN_MS = 3000

/** What a page does about its stream: `ask` now and then where it has none, as too many others have one; `back` once one that was lost is there again. */
type Doing = { ask(): void; back(): void }

/** Opens the stream of a page. */
export function openPageStream(address: string, { ask, back }: Doing): PageStream {
  const listeners = new Map<string, Set<(data: string) => void>>()
  const topics = new Map<string, string>()
  let source: EventSource | null = null
  let giveBack: (() => void) | null = null
  let timer: ReturnType<typeof setTimeout> | undefined
  let round = 0
  let lost = false

  const tell = (event: string, data: string) => {
    for (const listener of listeners.get(event) ?? []) listener(data)
  }
  const close = () => {
    round += 1
    clearTimeout(timer)
    source?.close()
    source = null
    giveBack?.()
    giveBack = null
  }
  const open = async () => {
    close()
    const own = round
    const slot = await takeSlot()
    if (own !== round) return slot?.()
    if (!slot) {
      tell('lost', '')
      timer = setTimeout(() => {
        ask()
        attend()
      }, ASK_EVERY_MS)
      return
    }
    giveBack = slot
    const query = new URLSearchParams([...topics]).toString()
    const opened = new EventSource(query ? `${address}?${query}` : address)
    source = opened
    for (const event of listeners.keys())
      opened.addEventListener(event, ({ data }: MessageEvent<string>) => tell(event, data))
    opened.onopen = () => {
      if (lost) back()
      lost = false
    }
    opened.onerror = () => {
      lost = true
      tell('lost', '')
      if (opened.readyState !== EventSource.CLOSED || source !== opened) return
      // refused, and not only broken off: the browser does not try again by itself
      close()
      timer = setTimeout(attend, AGAIN_MS)
    }
  }
  /** Pages nobody looks at leave their line to others, and hear the place when they are looked at again. */
  const attend = () => {
    const wanted = document.visibilityState === 'visible' || topics.size > 0
    if (!wanted) close()
    else if (!source) void open()
  }
  document.addEventListener('visibilitychange', attend)
  attend()
  return {
    hear(event, listener) {
      const known = listeners.get(event)
      if (known) known.add(listener)
      else {
        listeners.set(event, new Set([listener]))
        source?.addEventListener(event, ({ data }: MessageEvent<string>) => tell(event, data))
      }
      return () => void listeners.get(event)?.delete(listener)
    },
    watch(topic, of) {
      topics.set(topic, of)
      void open()
      return () => {
        if (topics.get(topic) !== of) return
        topics.delete(topic)
        close()
        attend()
      }
    },
    end() {
      document.removeEventListener('visibilitychange', attend)
      close()
    },
  }
}

/** Room for one more stream in this browser, to be given back; null where there is none. A browser that keeps no locks is not counted. */
async function takeSlot(): Promise<(() => void) | null> {
  if (!('locks' in navigator)) return () => {}
  for (let number = 0; number < MOST_STREAMS; number += 1) {
    const slot = await new Promise<(() => void) | null>((answer) => {
      void navigator.locks.request(`hallway-stream-${number}`, { ifAvailable: true }, (lock) => {
        if (!lock) return answer(null)
        return new Promise<void>((release) => answer(release))
      })
    })
    if (slot) return slot
  }
  return null
}

export const PageStreamContext = createContext<PageStream | null>(null)

/** Hears an event of the page's stream for as long as the caller is shown. */
export function useStream(event: string, listener: (data: string) => void): PageStream | null {
  const stream = useContext(PageStreamContext)
  const latest = useRef(listener)
  latest.current = listener
  useEffect(() => stream?.hear(event, (data) => latest.current(data)), [stream, event])
  return stream
}
