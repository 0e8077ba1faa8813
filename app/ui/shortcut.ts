import { useEffect } from 'react'

/** A single key for something people do often; never while they are typing. */
export function useShortcut(key: string, act: () => void): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement
      const typing = target.isContentEditable || ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName)
      if (event.key !== key || typing || event.ctrlKey || event.metaKey || event.altKey) return
      event.preventDefault()
      act()
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  })
}
