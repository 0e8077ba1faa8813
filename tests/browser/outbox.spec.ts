import type { Locator, Page } from '@playwright/test'
import { expect, open, ownSite, test } from '../support/pages'

// What is sent while the line is gone, or whose answer is lost, is kept on the page and sent again by itself. That each form there is may be sent twice is tried without a browser (tests/command/forms.test.ts).

/** How a form of each manner is filled in and sent; what is typed there stays typed while it waits; and what is there once it is saved. */
type Filled = {
  page: string
  /** Done with the line still there. */
  before?: (page: Page, site: string) => Promise<unknown>
  /** What was typed, where something is, with what the form then holds. */
  typed?: (page: Page) => [Locator, string]
  send: (page: Page) => Promise<unknown>
  saved: (page: Page) => Locator
}

const button = (page: Page, name: string | RegExp) =>
  page.getByRole('button', typeof name === 'string' ? { name, exact: true } : { name })
const press = (name: string | RegExp) => (page: Page) => button(page, name).first().click()
const csv = (text: string) => ({ name: 'table.csv', mimeType: 'text/csv', buffer: Buffer.from(text) })
const forms: Record<string, Filled> = {
  'routes/unit.ts': {
    page: 'SITE',
    send: (page) => page.locator('#unit-switch').click(),
    saved: (page) => page.locator('#unit-switch[value=m]'),
  },
  'routes/tables/tables.tsx': {
    page: 'SITE/tables',
    before: (page) => page.getByLabel(/CSV/).setInputFiles(csv('name\nUpper store\n')),
    send: press('Preview'),
    saved: (page) => page.getByText('Upper store').first(),
  },
  'routes/drawer/list/cables.tsx': {
    page: 'SITE/drawer',
    before: (page) => page.getByRole('checkbox', { name: 'Choose C-0001', exact: true }).check(),
    send: press('Lend'),
    saved: (page) => page.getByText('1 cable lent').first(),
  },
  'routes/drawer/session/session.tsx': {
    page: 'SITE/drawer/sessions/gallery-drawer?cable=c-0056&test=t5',
    typed: (page) => [page.getByLabel('Watts'), '57'],
    send: press('Save'),
    saved: (page) => page.getByText(/57 W/).first(),
  },
  'routes/run/run.tsx': {
    page: 'SITE/runs/r-13',
    typed: (page) => [page.getByLabel('Note'), 'not to be lost'],
    send: press('Save the run'),
    saved: (page) => page.getByText('R-13 is saved.'),
  },
  'routes/prove/readings.tsx': {
    page: 'SITE/prove/r-18',
    before: async (page, site) => {
      const sent = { series: 's-own', run: 'R-18', instrument: 'disk test', from: '0', lines: '{"write":2800}' }
      expect((await page.request.post(`${site}/instrument`, { form: sent })).status()).toBe(200)
      await open(page, `${site}/prove/r-18/readings/s-own`)
    },
    send: press('End and write down'),
    saved: (page) => page.getByText('It is done').first(),
  },
  'routes/order/order.tsx': {
    page: 'SITE/order',
    before: (page) => button(page, 'Plan this order').waitFor(),
    send: press('Plan this order'),
    saved: (page) => page.getByText('It is done, as it was shown.'),
  },
  'routes/take.ts': {
    page: 'SITE/runs/r-14',
    before: (page) =>
      button(page, /^Do it/)
        .first()
        .waitFor(),
    send: press(/^Do it/),
    saved: (page) => page.getByText('It is done').first(),
  },
}

const bar = (page: Page) => page.getByRole('status').filter({ hasText: 'Not certain that it was saved' })

const offTheLine = test.extend({ pagesAtHand: true })

for (const [route, form] of Object.entries(forms))
  offTheLine(
    `${route}: without a line the page and what was typed stay, and with it the form is sent by itself`,
    async ({ page, context, complaints }) => {
      const site = await ownSite(page)
      await open(page, form.page.replace('SITE', site))
      await form.before?.(page, site)
      const typed = form.typed?.(page)
      await typed?.[0].fill(typed[1])
      const address = page.url()
      await page.waitForSelector('html[data-at-hand]')
      await context.setOffline(true)
      await form.send(page)
      await expect(bar(page)).toBeVisible()
      await expect(bar(page)).toContainText('there is no line to Hallway')
      expect(page.url()).toBe(address)
      if (typed) await expect(typed[0]).toHaveValue(typed[1])
      await context.setOffline(false)
      await expect(form.saved(page)).toBeVisible()
      await expect(bar(page)).toHaveCount(0)
      await expect(page.getByText('went wrong')).toHaveCount(0)
      complaints.splice(0)
    },
  )

/** Asks for what waits to be sent again now; the page may do so by itself before the hand gets there. */
const tryNow = (page: Page) => Promise.race([press('Try now')(page), bar(page).waitFor({ state: 'hidden' })])

const note = 'not to be lost'
/** A run's form, filled in, and what becomes of what it sends in the test's hand. */
async function fillRun(page: Page): Promise<string> {
  const site = await ownSite(page)
  await open(page, `${site}/runs/r-13`)
  await page.getByLabel('Note').fill(note)
  return site
}
const placeOf = async (page: Page, site: string): Promise<string> =>
  (await page.request.get(`${site}/history`)).text().then((text) => /change (?:<!-- -->)?(\d+)/.exec(text)?.[1] ?? '')

test('an answer that is lost after the save is asked for again, and what was sent is saved once', async ({
  page,
  complaints,
}) => {
  const site = await fillRun(page)
  let sent = 0
  await page.route('**/runs/r-13.data*', async (route) => {
    if (route.request().method() !== 'POST') return route.continue()
    sent += 1
    if (sent > 1) return route.continue()
    await route.fetch({ maxRedirects: 0 })
    await route.abort()
  })
  await press('Save the run')(page)
  await expect(bar(page)).toBeVisible()
  await expect(page.getByText('R-13 is saved.')).toBeVisible()
  expect(sent).toBe(2)
  expect(await placeOf(page, site)).toBe('2')
  complaints.splice(0)
})

test('what waits survives a reload, and is told of when it is saved', async ({ page, complaints }) => {
  await fillRun(page)
  await page.route('**/runs/r-13.data*', (route) =>
    route.request().method() === 'POST' ? route.abort() : route.continue(),
  )
  await press('Save the run')(page)
  await expect(bar(page)).toBeVisible()
  await open(page, page.url())
  await expect(bar(page)).toBeVisible()
  await page.unroute('**/runs/r-13.data*')
  await tryNow(page)
  await expect(page.getByRole('status').filter({ hasText: 'It is saved' })).toBeVisible()
  await expect(page.getByLabel('Note')).toHaveValue(note)
  complaints.splice(0)
})

test('what is refused once the page is gone is kept in words until somebody has read it', async ({
  page,
  complaints,
}) => {
  const site = await fillRun(page)
  await page.route('**/runs/r-13.data*', (route) =>
    route.request().method() === 'POST' ? route.abort() : route.continue(),
  )
  await press('Save the run')(page)
  await expect(bar(page)).toBeVisible()
  const gone = await page.request.post(`${site}/runs/r-13`, { form: { intent: 'delete', base: '1' }, maxRedirects: 0 })
  expect(gone.status()).toBe(302)
  await open(page, site)
  await expect(bar(page)).toBeVisible()
  await page.unroute('**/runs/r-13.data*')
  await tryNow(page)
  const refused = page.getByRole('status').filter({ hasText: 'It was not saved' })
  await expect(refused).toContainText(note)
  await page.reload()
  await expect(refused).toContainText(note)
  await press('Dismiss')(page)
  await expect(refused).toHaveCount(0)
  await open(page, site)
  await expect(page.getByRole('link', { name: 'R-14' }).first()).toBeVisible()
  await expect(refused).toHaveCount(0)
  complaints.splice(0)
})

test('whoever goes to another page leaves the form in the outbox, and hears there that it is saved', async ({
  page,
  complaints,
}) => {
  await fillRun(page)
  await page.route('**/runs/r-13.data*', (route) =>
    route.request().method() === 'POST' ? route.abort() : route.continue(),
  )
  await press('Save the run')(page)
  await expect(bar(page)).toBeVisible()
  await page.getByRole('link', { name: /^Needs/ }).click()
  await expect(page.getByRole('heading', { level: 1, name: /^Needs/ })).toBeVisible()
  await expect(bar(page)).toContainText('from this page')
  await page.unroute('**/runs/r-13.data*')
  await tryNow(page)
  await expect(page.getByRole('status').filter({ hasText: 'It is saved' })).toBeVisible()
  complaints.splice(0)
})

offTheLine(
  'a page that is gone to without a line comes when the line is back',
  async ({ page, context, complaints }) => {
    const site = await ownSite(page)
    await open(page, `${site}/runs/r-13`)
    await page.waitForSelector('html[data-at-hand]')
    await page.getByLabel('Note').fill(note)
    await context.setOffline(true)
    await page.getByRole('link', { name: /^Needs/ }).click()
    await page.getByRole('button', { name: 'Leave without saving' }).click()
    await expect(page.getByRole('status').filter({ hasText: 'No connection to Hallway' })).toBeVisible()
    await expect(page.getByLabel('Note')).toHaveValue(note)
    await context.setOffline(false)
    await expect(page.getByRole('heading', { level: 1, name: /^Needs/ })).toBeVisible()
    complaints.splice(0)
  },
)

test('seven pages of one browser side by side all go on', async ({ page, context, complaints }) => {
  const site = await ownSite(page)
  const others = []
  for (let each = 0; each < 7; each += 1) others.push(await context.newPage())
  for (const other of others) await open(other, `${site}/runs/r-13`)
  await open(page, `${site}/runs/r-13`)
  await page.getByLabel('Note').fill(note)
  await press('Save the run')(page)
  await expect(page.getByText('R-13 is saved.')).toBeVisible()
  for (const other of others) await expect(other.getByLabel('Note')).toHaveValue(note)
  complaints.splice(0)
})
