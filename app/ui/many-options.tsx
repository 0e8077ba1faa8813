import { type ReactNode, useLayoutEffect, useRef, useState } from 'react'
import { flushSync } from 'react-dom'

/** As many choices as a page holds without being slow to open. */
export const FEW_OPTIONS = 500
const ASKED = 'hallway:all-options'

/**
 * The options of a choice among thousands: the chosen one and, once somebody turns to the choice, all of them. A page that held them all from the start
 * would take seconds to open and to follow a change.
 */
export function ManyOptions({ chosen, children }: { chosen: ReactNode; children: () => ReactNode }) {
  const mark = useRef<HTMLOptionElement>(null)
  const kept = useRef<string | null>(null)
  const [all, setAll] = useState(false)
  useLayoutEffect(() => {
    const select = mark.current?.closest('select')
    if (!select || all) return
    const open = () => {
      kept.current = select.value
      flushSync(() => setAll(true))
    }
    for (const event of ['focus', 'pointerdown', ASKED]) select.addEventListener(event, open, { once: true })
    return () => {
      for (const event of ['focus', 'pointerdown', ASKED]) select.removeEventListener(event, open)
    }
  }, [all])
  // what was chosen stays chosen among all
  useLayoutEffect(() => {
    const select = mark.current?.closest('select')
    if (all && select && kept.current !== null) select.value = kept.current
  }, [all])
  return (
    <>
      <option ref={mark} value="-" hidden disabled />
      {all ? children() : chosen}
    </>
  )
}

/** Chooses in a list that may not have been turned to yet. */
export function choose(select: HTMLSelectElement, value: string): void {
  select.dispatchEvent(new Event(ASKED))
  select.value = value
  select.dispatchEvent(new Event('input', { bubbles: true }))
}
