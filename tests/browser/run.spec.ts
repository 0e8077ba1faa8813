import { expect, open, ownSite, test, verdictOf } from '../support/pages'

test('a technician finds a better lead for the dock, sees the verdict at once, saves it and finds it again', async ({
  page,
}) => {
  const site = await ownSite(page)
  await open(page, '/')
  await expect(page.getByRole('link', { name: 'Saltmarsh Pilotage School' }).first()).toBeVisible()
  await open(page, site)
  const row = page.getByRole('row').filter({ hasText: 'R-09' })
  await expect(row).toContainText('Blocked')
  await row.getByRole('link', { name: 'R-09' }).click()

  await expect(verdictOf(page)).toHaveText('Blocked')
  await expect(page.getByRole('img', { name: /Gallery laptop to Gallery dock: Blocked/ })).toBeVisible()
  const findings = page.getByRole('region', { name: 'Findings' })
  await expect(findings).toContainText('have 720 Mb/s (90 MB/s), need 5.63 Gb/s (704 MB/s), 4.91 Gb/s short')
  await expect(findings).toContainText('An active lead made for USB4 40 Gb/s keeps the rate at 1.1 m.')
  await expect(findings).toContainText('common practice')

  // the drawer is ranked beside the page; what is chosen from it is judged in the page
  await expect(page.getByRole('button', { name: 'Choose C-0021' })).toBeVisible()
  const requests: string[] = []
  page.on('request', (request) => {
    // the scripts of other pages are fetched when this one has nothing else to do
    if (!request.url().includes('/assets/')) requests.push(request.url())
  })
  await page.getByRole('button', { name: 'Choose C-0021' }).click()
  await expect(verdictOf(page)).toHaveText('Clear')
  await expect(page.getByRole('img', { name: /Gallery dock: Clear/ })).toBeVisible()
  await expect(page.getByRole('button', { name: /^C-0021 USB4 40 Gb\/s active 2 m/ })).toBeVisible()
  expect(requests).toEqual([])

  await page.getByRole('button', { name: 'Save the run' }).click()
  await expect(page.getByText('R-09 is saved.')).toBeVisible()
  await page.reload()
  await expect(page.getByLabel('Cable', { exact: true })).toHaveValue('c-0021')
  await expect(verdictOf(page)).toHaveText('Clear')
})

test('the verdict follows the length as it is typed, in any unit', async ({ page }) => {
  await open(page, '/sites/saltmarsh/runs/r-15')
  await expect(verdictOf(page)).toHaveText('Clear')
  await page.getByLabel('Route length').fill('17\' 6"')
  await expect(verdictOf(page)).toHaveText('Blocked')
  await expect(page.getByRole('region', { name: 'Findings' })).toContainText(
    '5 m of lead does not span a route of 5.33 m.',
  )
  await page.getByLabel('Route length').fill('14 ft')
  await expect(verdictOf(page)).toHaveText('Clear')
})

test('a run is laid, needs and an extension added by line, and saved', async ({ page }) => {
  const site = await ownSite(page)
  await open(page, `${site}/runs/new`)
  await expect(page.getByLabel('Tag', { exact: true })).toHaveValue('R-21')
  await page.getByLabel('Host port').selectOption('scoring-desk/a')
  await page.getByLabel('Device port').selectOption('helm/usb')
  await page.getByLabel('Route length').fill('4 m')
  await page.getByLabel('Cable', { exact: true }).selectOption('c-0045')
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Scoring desk computer to Helm panel')
  // the panel already hangs on the extender
  await expect(page.getByRole('region', { name: 'Findings' })).toContainText('is already used by R-08')
  await page.getByLabel('Device port').selectOption('carry-disk/c')
  await expect(page.getByRole('region', { name: 'Findings' })).toContainText('does not fit')
  await page.getByRole('button', { name: 'Add an extension or adapter in series' }).click()
  await page.getByLabel('Cable 2, in series').selectOption('c-0042')
  await expect(page.getByRole('region', { name: 'Findings' })).toContainText('All 2 leads fit')

  await page.getByRole('button', { name: 'Add a need' }).click()
  const need = page.getByRole('group', { name: 'Need 1' })
  await need.getByLabel('Kind').selectOption('storage')
  await need.getByLabel('How much').fill('300 MB/s')
  await expect(page.getByRole('region', { name: 'Findings' })).toContainText('The storage needs 300 MB/s')
  await page.getByRole('button', { name: 'Lay the run' }).click()
  await expect(page.getByText('R-21 is saved.')).toBeVisible()
  await page.reload()
  await expect(page.getByLabel('Cable 2, in series')).toHaveValue('c-0042')
  await expect(page.getByRole('group', { name: 'Need 1' }).getByLabel('How much')).toHaveValue('300 MB/s')
})

test('a run is deleted and put back', async ({ page }) => {
  const site = await ownSite(page)
  await open(page, `${site}/runs/r-16`)
  await page.getByRole('button', { name: 'Delete this run' }).click()
  await expect(page.getByText('R-16 was deleted')).toBeVisible()
  await expect(page.getByRole('link', { name: 'R-16' })).toHaveCount(0)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByText('R-16 is back.')).toBeVisible()
  await page.getByRole('link', { name: 'R-16' }).click()
  await expect(page.getByRole('group', { name: 'Need 1' }).getByLabel('How much')).toHaveValue('4 Gb/s + 4.5 W')
})

test('a fault is told beside its field, focus goes there, and what was typed stays', async ({ page }) => {
  await open(page, '/sites/saltmarsh/runs/r-13')
  await page.getByLabel('Note').fill('keep this')
  await page.getByLabel('Route length').fill('5 parsecs')
  await page.getByRole('button', { name: 'Save the run' }).click()
  const length = page.getByLabel('Route length')
  await expect(length).toBeFocused()
  await expect(length).toHaveAttribute('aria-invalid', 'true')
  await expect(page.getByText('"5 parsecs" is not a length Hallway reads')).toBeVisible()
  await expect(page.getByLabel('Note')).toHaveValue('keep this')
  for (const wrong of ['0', '-1', '1e9 m', '']) {
    await length.fill(wrong)
    await page.getByRole('button', { name: 'Save the run' }).click()
    await expect(length).toHaveAttribute('aria-invalid', 'true')
    await expect(length).toHaveValue(wrong)
  }
})

test('a cable that lies elsewhere may be looked at but not saved twice', async ({ page }) => {
  await open(page, '/sites/saltmarsh/runs/r-17')
  await page.getByRole('button', { name: /Show all/ }).click()
  await page.getByRole('button', { name: 'Choose C-0029' }).click()
  await expect(verdictOf(page)).toHaveText('Clear')
  await page.getByRole('button', { name: 'Save the run' }).click()
  await expect(page.getByRole('alert').filter({ hasText: 'already lies in run' })).toBeVisible()
  await expect(page.getByLabel('Cable', { exact: true })).toHaveValue('c-0029')
})

test('two people on one run: the second may take what the first wrote', async ({ page, context }) => {
  const site = await ownSite(page)
  const other = await context.newPage()
  await open(page, `${site}/runs/r-13`)
  await open(other, `${site}/runs/r-13`)
  await page.getByLabel('Note').fill('mine')
  await other.getByLabel('Note').fill('theirs')
  await other.getByRole('button', { name: 'Save the run' }).click()
  await expect(other.getByText('R-13 is saved.')).toBeVisible()
  await page.getByRole('button', { name: 'Save the run' }).click()
  await page.getByRole('link', { name: 'Take theirs' }).click()
  await expect(page.getByLabel('Note')).toHaveValue('theirs')
})

test('all verdicts are on one page to print, and go out as a table', async ({ page }) => {
  await open(page, '/sites/saltmarsh')
  await page.getByRole('link', { name: 'Print or send' }).click()
  await expect(page.getByRole('heading', { name: 'Verdicts' })).toBeVisible()
  const runs = page.getByRole('table', { name: 'Runs' })
  await expect(runs.getByRole('row')).toHaveCount(21)
  await expect(runs.getByRole('row').nth(1)).toContainText('Blocked')
  await page.emulateMedia({ media: 'print' })
  await expect(page.getByRole('navigation', { name: 'Stages' })).toBeHidden()
  await expect(runs).toBeVisible()
  const table = await (await page.request.get('/sites/saltmarsh/verdicts.csv')).text()
  expect(table.split('\r\n').filter((line) => line.startsWith('run,'))).toHaveLength(20)
})
