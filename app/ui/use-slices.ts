import { startTransition, useEffect, useState } from 'react'

/** So much is drawn in one go that a press beside it is answered meanwhile. */
const SLICE = 120

/**
 * How many of many parts of a drawing are there yet. A page that comes from the server has all of them; one that somebody goes to draws them a slice at a
 * time.
 */
export function useSlices(total: number): number {
  const [drawn, setDrawn] = useState(() => (isOpen() ? 0 : total))
  useEffect(() => {
    if (drawn >= total) return
    const frame = requestAnimationFrame(() => startTransition(() => setDrawn(drawn + SLICE)))
    return () => cancelAnimationFrame(frame)
  }, [drawn, total])
  return drawn
}

/** Whether scripts have taken over, so that what is drawn now did not come from the server. */
const isOpen = (): boolean => typeof document !== 'undefined' && document.documentElement.dataset.ready === 'true'
