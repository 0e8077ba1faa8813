/** What the router knows of the pages there are, as the build wrote it. */
type Manifest = { routes: Readonly<Record<string, { module: string; imports?: readonly string[] }>> }

/**
 * Fetches the scripts of all other pages once this one has nothing else to do. The router takes a script that does not come for one that is out of date, and
 * opens the page anew: without a line that would cost what was typed. Whoever saves data is spared it.
 */
export function keepPagesAtHand(): void {
  const { __reactRouterManifest: manifest } = window as unknown as { __reactRouterManifest?: Manifest }
  const { connection } = navigator as { connection?: { saveData?: boolean } }
  if (!manifest || connection?.saveData) return
  const scripts = new Set(Object.values(manifest.routes).flatMap(({ module, imports = [] }) => [module, ...imports]))
  for (const link of document.querySelectorAll<HTMLLinkElement>('link[rel=modulepreload]'))
    scripts.delete(new URL(link.href).pathname)
  const links = [...scripts].map((href) =>
    Object.assign(document.createElement('link'), { rel: 'modulepreload', href, fetchPriority: 'low' }),
  )
  const come = links.map(
    (link) =>
      new Promise((settled) => {
        link.onload = settled
        link.onerror = settled
      }),
  )
  document.head.append(...links)
  // tells tests that a page may go without a line
  void Promise.all(come).then(() => {
    document.documentElement.dataset.atHand = 'true'
  })
}
