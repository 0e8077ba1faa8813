const OPENED = 'hallway-opened-anew'

/** So long a page is not opened anew a second time: while several processes are updated, the one that sent the page and the one that answers it may differ. */
const NOT_AGAIN_MS = 30_000

let opening = false
/** The page is being opened anew by itself. What was typed on it is kept and put back, so nobody is asked whether to leave it. */
export const isOpeningAnew = (): boolean => opening

/** Whether a page that the answers no longer fit may be opened anew; asking counts as doing it. */
export function mayOpenAnew(): boolean {
  const now = Date.now()
  try {
    if (now - Number(sessionStorage.getItem(OPENED) ?? 0) < NOT_AGAIN_MS) return false
    sessionStorage.setItem(OPENED, String(now))
  } catch {
    // a browser that keeps nothing cannot tell whether it did
    return false
  }
  return true
}

/** Opens the page anew, with the scripts that fit what answers; nothing after it goes on. */
export function openAnew(): Promise<never> {
  opening = true
  location.reload()
  return new Promise(() => {})
}
