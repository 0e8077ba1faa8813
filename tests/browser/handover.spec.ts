import { readFileSync } from 'node:fs'
import { expect, open, ownSite, test } from '../support/pages'

test('a site is handed over: what is open is said, the book is made while somebody looks, and stays as it was made', async ({
  page,
}) => {
  const site = await ownSite(page)
  await open(page, `${site}/handover`)
  await expect(page.getByText('Not laid: 13')).toBeVisible()
  await expect(page.getByRole('link', { name: 'R-03', exact: true })).toHaveAttribute('href', `${site}/prove/r-03`)
  await page.getByLabel('Name', { exact: true }).fill('Bridge hall, summer')
  await page.getByLabel('For whom').fill('the school')
  await page.getByLabel('Conditions', { exact: true }).fill('Tags stay on.')
  await page.getByLabel('Paper').selectOption('letter')
  await page.getByText('Parts of the book').first().click()
  await page.getByLabel(/^Spares/).uncheck()
  await page.getByRole('button', { name: 'Hand over' }).click()
  await expect(page.getByRole('heading', { name: 'Bridge hall, summer' })).toBeVisible()
  await expect(page.getByText('Not laid. Nobody has laid these runs.')).toBeVisible()
  // it is judged by the rules of today
  await expect(page.getByText('The printed one stands.')).toHaveCount(0)
  const book = page.getByRole('link', { name: /^The book/ })
  await expect(book).toBeVisible({ timeout: 60_000 })
  await expect(page.getByRole('link', { name: 'tables/runs.csv' })).toBeVisible()
  const [download] = await Promise.all([page.waitForEvent('download'), book.click()])
  expect(download.suggestedFilename()).toBe('book.pdf')
  expect(
    readFileSync(await download.path())
      .subarray(0, 5)
      .toString(),
  ).toBe('%PDF-')
  // what is changed later is told beside it
  await open(page, `${site}/runs/r-13`)
  await page.getByLabel('Cable', { exact: true }).focus()
  await page.keyboard.type('C-0036')
  await page.getByRole('button', { name: 'Save' }).first().click()
  await expect(page.getByText('It is done').or(page.getByText('is saved')).first()).toBeVisible()
  await open(page, `${site}/handover`)
  await page
    .getByRole('link', { name: /^What has changed since/ })
    .first()
    .click()
  const replaced = page.getByRole('region', { name: /^Leads replaced: 1/ })
  await expect(replaced).toContainText('C-0035, now C-0036')
  await page.getByRole('link', { name: 'The handover' }).click()
  await page.getByRole('link', { name: /^Read it here/ }).click()
  await expect(page.getByRole('heading', { name: 'Run by run' })).toBeVisible()
  await expect(page.getByRole('heading', { name: 'Spares' })).toHaveCount(0)
  await expect(page.getByRole('table').filter({ hasText: 'C-0035' }).first()).toBeVisible()
})

test('what is not chosen or not said is asked for, and what was typed stays', async ({ page }) => {
  const site = await ownSite(page)
  await open(page, `${site}/handover`)
  await page.getByLabel('Name', { exact: true }).fill('Hall')
  await page.getByLabel('For whom').fill('the school')
  await page.getByText('Parts of the book').first().click()
  for (const box of await page.getByRole('group', { name: 'Parts of the book' }).getByRole('checkbox').all())
    await box.uncheck()
  await page.getByRole('button', { name: 'Hand over' }).click()
  await expect(page.getByText('choose one part of the book at least')).toBeVisible()
  await expect(page.getByLabel('Name', { exact: true })).toHaveValue('Hall')
})

test('the demo was handed over in spring: what is new is listed and stands out on the floor, and a change is answered without changing it', async ({
  page,
}) => {
  await open(page, '/sites/saltmarsh/handover/spring/book?part=tags')
  await expect(page.getByText(/before Hallway noted by which rules .* The printed one stands\./)).toBeVisible()
  await open(page, '/sites/saltmarsh/handover/spring')
  await page.getByRole('link', { name: /^What has changed since/ }).click()
  await expect(page.getByRole('region', { name: /^New runs: 6/ })).toContainText('R-20')
  const stale = page.getByRole('region', { name: /^Gone stale: 2/ })
  await expect(stale).toContainText('firmware is F9, was F8')
  await expect(stale).toContainText('screen is Quay 32, was Harbour 32')
  // what the client would feel comes before the lists
  await expect(
    page
      .getByRole('region')
      .filter({ has: page.getByRole('heading', { level: 2 }) })
      .first(),
  ).toHaveAccessibleName(/^Judged otherwise/)
  await expect(page.getByRole('heading', { name: 'Ground floor, with what is new' })).toBeVisible()
  const table = await page.request.get('/sites/saltmarsh/handover/spring/since.csv')
  expect(await table.text()).toContain('Leads replaced,R-04,"C-0014, now C-0006"')
  await open(page, '/sites/saltmarsh/handover/spring/ahead')
  await page.getByRole('link', { name: 'a 240 W laptop' }).click()
  await expect(page.getByRole('heading', { name: 'whatever charges takes 240 W' })).toBeVisible()
  await expect(page.getByText(/runs that get through today survive it/)).toBeVisible()
  await page.getByLabel('What is wanted').selectOption('pictures')
  await page.getByLabel('Size').fill('very large')
  await page.getByRole('button', { name: 'Answer' }).click()
  await expect(page.getByText('Write a picture like').first()).toBeVisible()
})

test('a handover whose plan was not kept says so in words, and one that is not there as well', async ({ page }) => {
  // a plan file alone carries no plan of its handovers, and another log
  const site = await ownSite(page)
  for (const part of ['book', 'since', 'ahead?sort=power&size=60+W']) {
    const answer = await page.request.get(`${site}/handover/spring/${part}`)
    expect(answer.status()).toBe(410)
    expect(await answer.text()).toContain('Hand over anew')
  }
  for (const part of [
    'none',
    'none/book',
    'none/since.csv',
    'none/pack.zip',
    'spring/pack.zip',
    'spring/files/book.pdf',
    'spring/files/../x',
  ])
    expect((await page.request.get(`${site}/handover/${part}`)).status()).toBe(404)
})
