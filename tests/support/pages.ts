import { type APIRequestContext, test as base, expect, type Page } from '@playwright/test'
import { freePort } from './free-port'
import { type HallwayProcess, startHallway } from './hallway-process'

/** How long a worker's own Hallway may take to open, on a machine where much else goes on. */
const OPENS_WITHIN_MS = 180_000

/**
 * Each worker has a Hallway of its own, so that tests do not meet in it. Every browser test fails on anything the page complains of, besides the answers a test
 * provokes on purpose.
 */
export const test = base.extend<{ complaints: string[]; pagesAtHand: boolean }, { hallway: HallwayProcess }>({
  // a page that stands fetches the scripts of all others, which costs as much as opening it: only where a test goes off the line
  pagesAtHand: [false, { option: true }],
  context: async ({ context, pagesAtHand }, use) => {
    if (!pagesAtHand) await context.addInitScript(saveData)
    await use(context)
  },
  hallway: [
    // biome-ignore lint/correctness/noEmptyPattern: the form of a fixture that needs no other
    async ({}, use) => {
      const hallway = await startHallway(await freePort())
      await use(hallway)
      await hallway.stop()
    },
    { scope: 'worker', timeout: OPENS_WITHIN_MS },
  ],
  baseURL: ({ hallway }, use) => use(hallway.address),
  complaints: [
    async ({ page }, use) => {
      const complaints: string[] = []
      page.on('pageerror', (error) => complaints.push(error.message))
      page.on('console', (message) => {
        // a refused save is an answer of 4xx or 503, which the browser itself notes as an error
        if (message.type() === 'error' && !/status of (4\d\d|503)/.test(message.text())) complaints.push(message.text())
      })
      await use(complaints)
      expect(complaints).toEqual([])
    },
    { auto: true },
  ],
})

export { expect }

/** As a browser that is told to spare data. */
const saveData = (): void => {
  Object.defineProperty(navigator, 'connection', { value: { saveData: true } })
}

/** Opens a page and waits until scripts have taken over. */
export async function open(page: Page, path: string): Promise<void> {
  await page.goto(path)
  await page.waitForSelector('html[data-ready]')
}

/** The large verdict beside the title. */
export const verdictOf = (page: Page) => page.locator('[data-verdict]')

/** A site of the test's own, from the demo's file, so that tests do not meet in it. Answers its address. */
export async function ownSite(page: Page, change: (plan: string) => string = (plan) => plan): Promise<string> {
  const plan = change(await (await page.request.get('/sites/saltmarsh/plan.json')).text())
  return imported(page.request, Buffer.from(plan))
}

/** Imports a plan file or an archive as a new site. Answers its address. */
export async function imported(request: APIRequestContext, buffer: Buffer): Promise<string> {
  const isArchive = buffer.subarray(0, 2).toString() === 'PK'
  const file = isArchive
    ? { name: 'site.zip', mimeType: 'application/zip', buffer }
    : { name: 'plan.json', mimeType: 'application/json', buffer }
  const send = () => request.post('/import', { multipart: { file }, maxRedirects: 0 })
  let answer = await send()
  // a machine whose disk stands still for seconds answers so, and a person sends it again
  for (let again = 0; answer.status() === 503 && again < 3; again += 1) answer = await send()
  expect(answer.status(), answer.status() === 302 ? '' : await answer.text()).toBe(302)
  return answer.headers().location as string
}
