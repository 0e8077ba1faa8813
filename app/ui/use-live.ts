import { useEffect, useRef, useState } from 'react'
import { useRevalidator } from 'react-router'
import type { LogPosition } from '../../core/change/change'
import { tryNow } from '../outbox/install'
import { openPageStream, type PageStream } from './page-stream'

/**
 * Keeps an open page at the place its site has come to, whoever changes it, and answers its stream. What is being typed stays: forms keep what they were
 * made from.
 */
export function useLive(siteId: string, place: LogPosition): PageStream | null {
  const { revalidate, state } = useRevalidator()
  const known = useRef(place)
  const busy = useRef(state)
  const wanted = useRef(place)
  const [stream, setStream] = useState<PageStream | null>(null)
  known.current = place
  busy.current = state
  useEffect(() => {
    const catchUp = () => {
      if (busy.current === 'idle') void revalidate()
    }
    // where a stream comes through, what waits to be sent does too
    const opened = openPageStream(`/sites/${siteId}/live`, { ask: catchUp, back: tryNow })
    opened.hear('place', (data) => {
      wanted.current = Math.max(wanted.current, Number(data))
      if (wanted.current > known.current) catchUp()
    })
    setStream(opened)
    return () => opened.end()
  }, [siteId, revalidate])
  // what was heard while the page was catching up
  useEffect(() => {
    if (state === 'idle' && wanted.current > place) void revalidate()
  }, [state, place, revalidate])
  return stream
}
