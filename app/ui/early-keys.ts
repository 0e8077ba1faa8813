/** Keys that were pressed where only scripts know what they do, before these had taken the page over. */
const early: KeyboardEvent[] = []

const hold = (event: KeyboardEvent): void => {
  if (!(event.target instanceof Element) || !event.target.closest('[data-early-keys]') || event.key === 'Tab') return
  event.preventDefault()
  early.push(event)
}

/** Keeps keys that are pressed on what is marked with `data-early-keys` until the page is ready for them. */
export const holdEarlyKeys = (): void => document.addEventListener('keydown', hold, true)

/** Presses them again, now that somebody listens: one after the other, as each may go on from what the one before it did. */
export function pressEarlyKeys(): void {
  document.removeEventListener('keydown', hold, true)
  for (const [at, { target, key, code, shiftKey, altKey, ctrlKey, metaKey }] of early.splice(0).entries()) {
    const again = { key, code, shiftKey, altKey, ctrlKey, metaKey, bubbles: true, cancelable: true }
    setTimeout(() => target?.dispatchEvent(new KeyboardEvent('keydown', again)), at * APART_MS)
  }
}
const APART_MS = 20
