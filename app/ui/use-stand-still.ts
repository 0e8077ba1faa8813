import { type RefObject, useLayoutEffect, useRef } from 'react'
import { useNavigation } from 'react-router'

/**
 * Whether the page stands still because something is being saved. What would be typed then would be gone when the page shows what was saved. Whoever
 * works by keyboard is afterwards where they were, or at the top of the page where that is no longer there.
 */
export function useStandStill(page: RefObject<HTMLElement | null>): boolean {
  const { state, formMethod } = useNavigation()
  const saving = state !== 'idle' && formMethod !== undefined && formMethod !== 'GET'
  const held = useRef<Element | null>(null)
  useLayoutEffect(() => {
    if (saving) {
      held.current = document.activeElement
      return
    }
    const was = held.current
    held.current = null
    if (!(was instanceof HTMLElement) || was === document.body) return
    const back = was.isConnected ? was : page.current
    if (document.activeElement === document.body || document.activeElement === was) back?.focus({ preventScroll: true })
  }, [saving, page])
  return saving
}
