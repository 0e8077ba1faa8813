import { useEffect, useState } from 'react'

/** Seconds that have gone by since `from` seconds were on the clock, counted on every half second. */
export function useSeconds(from: number): number {
  const [start] = useState(() => Date.now())
  const [now, setNow] = useState(start)
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), 500)
    return () => clearInterval(timer)
  }, [])
  return from + (now - start) / 1000
}
