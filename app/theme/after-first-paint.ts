/** Long enough for a first paint on a slow machine; a page in a tab nobody looks at is not painted at all. */
const NO_LONGER_THAN_MS = 400

const inBrowser = typeof window !== 'undefined'

/** Lets the browser do what waits: scripts that are read in one stretch would hold the page for as long as all of them take. */
export const giveWay = (): Promise<void> => (inBrowser ? new Promise((go) => setTimeout(go)) : Promise.resolve())

// Pages come rendered. What takes them over is made ready once they are seen.
if (inBrowser) {
  await new Promise<void>((go) => {
    requestAnimationFrame(() => setTimeout(go))
    setTimeout(go, NO_LONGER_THAN_MS)
  })
}
