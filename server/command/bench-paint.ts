import { createServer } from 'node:http'
import type { AddressInfo } from 'node:net'
import { median } from './timing'

const GOES = 5
const BROWSER = '/usr/bin/chromium-headless-shell'
const FLAGS = ['--no-sandbox', '--disable-gpu', '--disable-quic', '--no-first-run', '--disable-background-networking']

/** When a new browser shows a page, when scripts have taken it over, and the longest its thread is held meanwhile. Milliseconds. */
export type Paint = { page: string; first: number; ready: number; longest: number }

/** Each page in a fresh browser profile, and a bare page of one line beside them; null where there is no browser here. */
export async function paintsOf(pages: readonly [string, string][]): Promise<Paint[] | null> {
  const playwright = await import('@playwright/test').catch(() => null)
  const browser = await playwright?.chromium.launch({ executablePath: BROWSER, args: FLAGS }).catch(() => null)
  if (!browser) return null
  const bare = createServer((_request, response) => {
    response.setHeader('Content-Type', 'text/html')
    response.end('<!doctype html><html lang="en"><title>Bare</title><body><h1>Bare</h1></body></html>')
  })
  await new Promise<void>((opened) => bare.listen(0, '127.0.0.1', opened))
  const bareAddress = `http://127.0.0.1:${(bare.address() as AddressInfo).port}/`
  const paints: Paint[] = []
  for (const [page, address] of [['bare', bareAddress], ...pages] as const) {
    const goes: Omit<Paint, 'page'>[] = []
    for (let go = 0; go < GOES; go += 1) {
      const context = await browser.newContext({ viewport: { width: 1280, height: 800 } })
      const tab = await context.newPage()
      await tab.goto(address)
      if (address !== bareAddress) await tab.waitForSelector('html[data-ready]')
      await tab.waitForTimeout(1500)
      goes.push(await tab.evaluate(WATCHED))
      await context.close()
    }
    const middle = (of: (paint: Omit<Paint, 'page'>) => number): number => median(goes.map(of))
    paints.push({
      page,
      first: middle(({ first }) => first),
      ready: middle(({ ready }) => ready),
      longest: middle(({ longest }) => longest),
    })
  }
  await browser.close()
  bare.close()
  return paints
}

/** Run in the page: what the browser noted of itself. */
const WATCHED = `new Promise((told) => {
  new PerformanceObserver((list) => {
    const tasks = list.getEntries().map(({ duration }) => duration)
    told(Math.max(0, ...tasks))
  }).observe({ type: 'longtask', buffered: true })
  setTimeout(() => told(0), 200)
}).then((longest) => ({
  first: performance.getEntriesByName('first-contentful-paint')[0]?.startTime ?? 0,
  ready: performance.getEntriesByName('hallway-ready')[0]?.startTime ?? 0,
  longest,
}))` as unknown as () => Promise<Omit<Paint, 'page'>>
