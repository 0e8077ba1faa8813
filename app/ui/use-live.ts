import { useEffect, useRef } from 'react'
import { useRevalidator } from 'react-router'
import type { LogPosition } from '../../core/change/change'

/** Keeps an open page at the place its site has come to, whoever changes it. What is being typed stays: forms keep what they were made from. */
export function useLive(siteId: string, place: LogPosition): void {
  const { revalidate, state } = useRevalidator()
  const known = useRef(place)
  const busy = useRef(state)
  const wanted = useRef(place)
  known.current = place
  busy.current = state
  useEffect(() => {
    let source: EventSource | null = null
    const hear = (event: MessageEvent<string>) => {
      wanted.current = Math.max(wanted.current, Number(event.data))
      if (wanted.current > known.current && busy.current === 'idle') void revalidate()
    }
    // a browser keeps few lines to one host: pages nobody looks at leave theirs to others, and hear the place when they are looked at again
    const attend = () => {
      if (document.visibilityState === 'hidden') {
        source?.close()
        source = null
      } else if (!source) {
        source = new EventSource(`/sites/${siteId}/live`)
        source.addEventListener('place', hear)
      }
    }
    attend()
    document.addEventListener('visibilitychange', attend)
    return () => {
      document.removeEventListener('visibilitychange', attend)
      source?.close()
    }
  }, [siteId, revalidate])
  // what was heard while the page was catching up
  useEffect(() => {
    if (state === 'idle' && wanted.current > place) void revalidate()
  }, [state, place, revalidate])
}
