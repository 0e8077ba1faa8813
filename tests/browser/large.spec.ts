import { leadKey } from '../../core/vocabulary/run'
import { largeSite } from '../../server/command/bench-change'
import { foundByAxe } from '../support/looks'
import { expect, open, test } from '../support/pages'

test('a site of 2,000 runs, 5,000 cables and 25,000 observations is brought in, changed and followed', async ({
  page,
  browser,
}) => {
  test.setTimeout(180_000)
  const plan = largeSite()
  const brought = await page.request.post('/import', {
    multipart: {
      file: { name: 'large.json', mimeType: 'application/json', buffer: Buffer.from(JSON.stringify(plan)) },
    },
    maxRedirects: 0,
    timeout: 60_000,
  })
  expect(brought.status()).toBe(302)
  const site = brought.headers().location as string
  const [first, second] = plan.runs
  if (!first || !second) throw new Error('a large site has runs')

  await open(page, `${site}/runs/${first.id}`)
  const other = await (await browser.newContext()).newPage()
  await open(other, `${site}/runs/${first.id}`)
  // what comes of a save is the change, not the plan
  const bytes: number[] = []
  for (const each of [page, other])
    each.on('response', async (answer) => {
      if (/\/changes\?|\.data/.test(answer.url())) bytes.push((await answer.body().catch(() => Buffer.of())).length)
    })
  await page.getByLabel('Note').fill('seen by both')
  await page.getByRole('button', { name: 'Save the run' }).click()
  await expect(page.getByText('is saved.')).toBeVisible()
  await expect(other.getByLabel('Note')).toHaveValue('seen by both')
  expect(bytes.length).toBeGreaterThan(1)
  expect(Math.max(...bytes)).toBeLessThan(3000)

  // among thousands one finds a choice by its name, and what was chosen stays until another is
  const lead = page.getByLabel('Cable', { exact: true })
  const before = await lead.inputValue()
  expect(before).toBe(first.leads[0] && leadKey(first.leads[0]))
  expect(await lead.locator('option').count()).toBeLessThan(5)
  await page.getByLabel('Find: Cable').fill('c-0412')
  await expect(page.getByText('10 of 10 shown')).toBeVisible()
  await expect(lead).toHaveValue(before)
  await page.getByLabel('Find: Cable').fill('nothing like it')
  await expect(page.getByText('No match.')).toBeVisible()
  await page.getByLabel('Find: Cable').fill('c-04123')
  await page.getByLabel('Find: Cable').press('Enter')
  await expect(lead).toHaveValue('c04123')
  expect(await lead.locator('option').count()).toBeLessThan(5)
  // the drawer of 5,000 is ranked for what is typed, beside the page, and a lead of it goes into the form
  const best = page.getByRole('button', { name: /^Choose C-/ }).first()
  await expect(best).toBeVisible()
  const tag = (await best.getAttribute('aria-label'))?.replace('Choose ', '') ?? ''
  await best.click()
  await expect(lead).toHaveValue(tag.toLowerCase().replace('-', ''))
  await expect(page.getByText(/Show 60 of \d{3,}/)).toBeVisible()

  expect(await foundByAxe(page)).toEqual([])

  // its board holds the rows in view, down to the last one, and finds one by its tag
  await open(page, `${site}?sort=list`)
  const table = page.getByRole('table', { name: 'Runs' })
  await expect(table.getByRole('link', { name: 'R-00000' })).toBeVisible()
  expect(await table.getByRole('row').count()).toBeLessThan(60)
  await page.evaluate(() => window.scrollTo(0, document.body.scrollHeight))
  await expect(async () => {
    await page.evaluate(() => window.scrollTo(0, document.body.scrollHeight))
    await expect(table.getByRole('link', { name: 'R-01999' })).toBeInViewport()
  }).toPass()
  expect(await table.getByRole('row').count()).toBeLessThan(60)
  await page.getByRole('textbox', { name: /Find anything/ }).fill('R-01234')
  await page.getByRole('textbox', { name: /Find anything/ }).press('Enter')
  await expect(table.getByRole('row')).toHaveCount(2)
  // without scripts its rows are turned over
  const plain = await (await browser.newContext({ javaScriptEnabled: false })).newPage()
  await plain.goto(`${site}?sort=list`)
  await plain.getByRole('link', { name: 'Next rows' }).click()
  await expect(plain.getByText(/^Rows \d+ to \d+ of 2000\./)).toBeVisible()
  await expect(plain.getByRole('link', { name: 'R-00000' })).toHaveCount(0)
  await plain.context().close()

  // the best from the drawer for all that wait is worked out beside the page, which answers meanwhile, and can be stopped
  await open(page, site)
  await page.getByRole('button', { name: 'A way out for each' }).click()
  await page.getByLabel('Kind of need').selectOption('storage')
  await expect(page).toHaveURL(/flow=storage/)
  await page.getByRole('button', { name: 'Stop' }).click()
  await page.getByLabel('Kind of need').selectOption('all kinds')
  await page.getByRole('button', { name: /^Best from the drawer/ }).click()
  const proposal = page.getByRole('region', { name: 'The best from the drawer' })
  await expect(proposal).toContainText('Nothing has been changed yet.', { timeout: 60_000 })
  expect(await page.getByRole('row').count()).toBeLessThan(130)

  // its lists show what the page shows, not all there is
  await open(page, `${site}/drawer`)
  await expect(page.getByText(/5,?000/).first()).toBeVisible()
  expect(await page.getByRole('row').count()).toBeLessThan(200)
  const back = await (await page.request.get(`${site}/plan.json`, { timeout: 60_000 })).json()
  expect(back.observations).toEqual(plan.observations)
  expect(back.runs[0].note).toBe('seen by both')
  await other.context().close()

  // a fault is searched on it as on a small one
  await open(page, `${site}/faults?run=${first.id}`)
  await page.getByRole('checkbox', { name: /^It drops after a while/ }).check()
  await page.getByRole('button', { name: 'Search for the fault' }).click()
  await expect(page.getByRole('heading', { name: 'Try this next' })).toBeVisible()
})
