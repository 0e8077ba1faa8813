import type { Page } from '@playwright/test'
import { freePort } from '../support/free-port'
import { startHallway } from '../support/hallway-process'
import { nothingFree } from '../support/nothing-free'
import { expect, open, ownSite, test } from '../support/pages'
import { PICTURES, type PictureName } from '../support/pictures'

/** How the views that need no more than their address are looked at. */
const views: readonly [
  PictureName,
  { scheme?: 'light' | 'dark'; phone?: true; before?: (page: Page) => Promise<void> }?,
][] = [
  ['board'],
  ['run', { before: advised }],
  ['survey'],
  ['floor'],
  ['walk', { phone: true }],
  ['needs'],
  ['need', { before: lookCloser }],
  ['reach', { before: chartDrawn }],
  ['policy', { before: judged }],
  ['drawer'],
  ['cable'],
  ['session'],
  ['install', { phone: true }],
  ['prove'],
  ['fault', { scheme: 'dark' }],
  ['handover'],
]

async function lookCloser(page: Page) {
  await page.getByRole('button', { name: /C-0017/ }).focus()
}

async function advised(page: Page) {
  await page.getByText('tried; these help').waitFor()
}

async function chartDrawn(page: Page) {
  await page.locator('[role=img] svg').first().waitFor()
}

/** What is worked out beside the page has come. */
async function judged(page: Page) {
  await page
    .getByText(/Would change/)
    .first()
    .waitFor()
}

// as somebody sees it who has said their name
test.beforeEach(async ({ page }) => {
  await page.request.post('/who', { form: { name: 'Night shift' } })
})

for (const [name, { scheme = 'light', phone, before } = {}] of views) {
  test(name, async ({ page }) => {
    await page.emulateMedia({ colorScheme: scheme })
    await page.setViewportSize(phone ? { width: 390, height: 844 } : { width: 1280, height: 800 })
    await open(page, PICTURES[name])
    await before?.(page)
    await page.evaluate(() => document.fonts.ready)
    await page.screenshot({ path: `docs/screenshots/${name}.png` })
  })
}

test('people', async ({ page }) => {
  const hallway = await startHallway(await freePort(), { words: ['--people'] })
  try {
    const [, password = ''] = /Tove +leads the site +(.+)/.exec(hallway.said()) ?? []
    await page.goto(`${hallway.address}/sign-in?to=/sites/saltmarsh/people`)
    await page.getByLabel('Name').fill('Tove')
    await page.getByLabel('Password').fill(password.trim())
    await page.getByRole('button', { name: 'Sign in', exact: true }).click()
    await page.waitForSelector('html[data-ready]')
    await page.evaluate(() => document.fonts.ready)
    await page.screenshot({ path: 'docs/screenshots/people.png' })
    await page.goto('about:blank')
  } finally {
    await hallway.stop()
  }
})

test('history', async ({ page }) => {
  const site = await ownSite(page)
  const post = (path: string, form: Record<string, string>) => page.request.post(`${site}${path}`, { form })
  for (const [name, path, form] of [
    ['Harbour desk', '/drawer?index', { cables: 'c-0021 c-0051', intent: 'lent', base: '1' }],
    [
      'Night shift',
      '/cables/c-0056',
      { intent: 'trial', tried: 'usb4-40', seen: 'dropped', seconds: '71', controller: '' },
    ],
    ['Night shift', '/drawer?index', { cables: 'c-0021', intent: 'drawer', base: '2' }],
  ] as const) {
    await page.request.post('/who', { form: { name } })
    await post(path, form)
  }
  await open(page, `${site}/history`)
  await page.screenshot({ path: 'docs/screenshots/history.png' })
})

test('order', async ({ page }) => {
  const site = await ownSite(page, nothingFree)
  await page.setViewportSize({ width: 1280, height: 800 })
  await open(page, `${site}/order`)
  await expect(page.getByText('proved the best')).toHaveCount(4, { timeout: 20_000 })
  await page.screenshot({ path: 'docs/screenshots/order.png' })
})
