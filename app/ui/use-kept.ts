import { useState } from 'react'
import { useLocation, useSearchParams } from 'react-router'

type Kept<T> = {
  /** What a form is made from. */
  made: T
  /** Whether it is another value by now, while somebody types. */
  behind: boolean
  /** Says that somebody types: from now on the form keeps what it was made from. */
  type: () => void
  /** Counts how often the form was made anew. */
  round: number
}

/**
 * Holds on to what a form was made from. As long as nobody has typed it follows what it is of; then it stays, whatever others change, until the form
 * was saved, which the address says: `done` is then what this form goes by, so that saving another form on the page leaves this one alone.
 */
export function useKept<T extends { stamp: string }>(now: T, form = 'saved'): Kept<T> {
  const { key } = useLocation()
  const done = useSearchParams()[0].get('done') === form
  const [kept, setKept] = useState({ made: now, typed: false, saved: done ? key : '', round: 0 })
  const type = () => setKept((before) => (before.typed ? before : { ...before, typed: true }))
  const saved = done && kept.saved !== key
  const moved = kept.made.stamp !== now.stamp
  if (!saved && (!moved || kept.typed)) return { made: kept.made, behind: moved, type, round: kept.round }
  const next = { made: now, typed: false, saved: saved ? key : kept.saved, round: kept.round + 1 }
  setKept(next)
  return { made: now, behind: false, type, round: next.round }
}
