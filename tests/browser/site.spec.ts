import { readFileSync } from 'node:fs'
import { expect, open, ownSite, test } from '../support/pages'

test('a site is made; without a name it is not, and the field says so', async ({ page }) => {
  await open(page, '/')
  await page.getByRole('button', { name: 'Create the site' }).click()
  await expect(page.getByText('Give the site a name')).toBeVisible()
  await expect(page.getByLabel('Name')).toBeFocused()
  await page.getByLabel('Name').fill('Lock house <b>"2"</b>')
  await page.getByRole('button', { name: 'Create the site' }).click()
  await expect(page.getByRole('link', { name: 'Lock house <b>"2"</b>' })).toBeVisible()
  await expect(page.getByRole('list', { name: 'The first job, step by step' })).toBeVisible()
})

test('the board is searched with / and narrowed by verdict', async ({ page }) => {
  await open(page, '/sites/saltmarsh')
  await page.keyboard.press('/')
  await page.keyboard.type('bridge view')
  await page.keyboard.press('Enter')
  await page.getByRole('link', { name: 'Show these runs on the board' }).click()
  await expect(page.getByRole('row')).toHaveCount(6)
  await page
    .getByRole('link', { name: /Blocked/i })
    .first()
    .click()
  await expect(page.getByRole('row')).toHaveCount(2)
  await expect(page.getByRole('row').last()).toContainText('R-04')
  await open(page, '/sites/saltmarsh?q=nothing-like-it')
  await expect(page.getByText('No run matches.')).toBeVisible()
})

test('u switches metres and feet, and the choice stays', async ({ page }) => {
  await open(page, '/sites/saltmarsh/runs/r-15')
  await expect(page.getByLabel('Route length')).toHaveValue('4.4 m')
  await page.keyboard.press('u')
  await expect(page.getByRole('button', { name: 'Show metres' })).toBeVisible()
  await expect(page.getByRole('region', { name: 'Findings' })).toContainText('16 ft 5 in of lead spans the 14 ft 5')
  await page.reload()
  await expect(page.getByRole('button', { name: 'Show metres' })).toBeVisible()
})

test('what the site goes by changes verdicts', async ({ page }) => {
  const site = await ownSite(page)
  await open(page, `${site}/runs/r-09`)
  await page.getByLabel('Cable', { exact: true }).selectOption('c-0020')
  const findings = page.getByRole('region', { name: 'Findings' })
  await expect(findings).toContainText('This site goes by the book, so it does not count.')
  await open(page, `${site}/policy`)
  await page.getByLabel('By the bench').check()
  await page.getByLabel('What a dock costs').fill('210.5')
  await page.getByLabel('What a hub costs').fill('')
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(page.getByRole('link', { name: 'by the bench' })).toBeVisible()
  await page.reload()
  await expect(page.getByLabel('What a dock costs')).toHaveValue('210.5')
  await expect(page.getByLabel('What a hub costs')).toHaveValue('')
  await expect(page.getByLabel('What a charger costs')).toHaveValue('59')
  await open(page, `${site}/runs/r-09`)
  await page.getByLabel('Cable', { exact: true }).selectOption('c-0020')
  await expect(findings).toContainText('By the rules of this site that counts.')
})

test('needs show their way and verdict', async ({ page }) => {
  await open(page, '/sites/saltmarsh/needs')
  const row = page.getByRole('row').filter({ hasText: 'helm orders' })
  await expect(row).toContainText('R-08 > R-07 > R-06')
  await expect(row).toContainText('Clear')
})

test('a site goes out as a plan file and comes back in as a new site', async ({ page }) => {
  const file = await page.request.get('/sites/saltmarsh/plan.json')
  expect(file.headers()['content-disposition']).toContain('saltmarsh.json')
  await open(page, '/import')
  await page
    .getByLabel('Plan file')
    .setInputFiles({ name: 'plan.json', mimeType: 'application/json', buffer: await file.body() })
  await page.getByRole('button', { name: 'Import', exact: true }).click()
  await expect(page.getByRole('row')).toHaveCount(21)
  expect(page.url()).toMatch(/\/sites\/saltmarsh-\d+$/)
})

test('a plan file with faults is refused with every path and reason, and nothing is written', async ({ page }) => {
  const plan = JSON.parse(readFileSync('demo/saltmarsh.json', 'utf8'))
  plan.site.id = 'never-written'
  plan.cables[3].length = -1
  plan.runs[0].leads[0].cable = 'c-none'
  plan.devices[0].ports[0].connector = 'type-q'
  await open(page, '/import')
  await page.getByLabel('or its text').fill(JSON.stringify(plan))
  await page.getByRole('button', { name: 'Import', exact: true }).click()
  const alert = page.getByRole('alert')
  await expect(alert).toContainText('cables[3].length: -1 is outside')
  await expect(alert).toContainText('devices[0].ports[0].connector')
  await expect(page.getByLabel('or its text')).not.toBeEmpty()
  expect((await page.request.get('/sites/never-written')).status()).toBe(404)
})

for (const [what, bytes] of [
  ['7 MB', 7_000_000],
  ['10 MB', 10_000_000],
] as const) {
  test(`${what} of nonsense is refused and the server lives`, async ({ page }) => {
    const answer = await page.request.post('/import', {
      multipart: { file: { name: 'plan.json', mimeType: 'application/json', buffer: Buffer.alloc(bytes, '{"') } },
    })
    expect([413, 422]).toContain(answer.status())
    expect((await page.request.get('/health')).status()).toBe(200)
  })
}

test('an address that leads nowhere says so and leads back', async ({ page }) => {
  for (const path of ['/nowhere', '/sites/nowhere', '/sites/saltmarsh/runs/nowhere']) {
    await open(page, path)
    await expect(page.getByRole('heading', { name: 'This page is not there' })).toBeVisible()
    await expect(page.getByRole('link', { name: 'All sites' })).toBeVisible()
  }
})

test('anything is found by any of its words, with the keys alone, and the words and keys are shown', async ({
  page,
}) => {
  await open(page, '/sites/saltmarsh')
  await page.keyboard.press('/')
  await page.keyboard.type('dock gallery')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { name: 'Find “dock gallery”' })).toBeVisible()
  const devices = page.getByRole('table', { name: 'Devices' })
  await expect(devices.getByRole('link', { name: 'Gallery dock' })).toBeVisible()
  await page.getByRole('heading', { level: 1 }).click()
  await page.keyboard.press('?')
  const words = page.getByRole('dialog', { name: 'Words and keys' })
  await expect(words.getByRole('row', { name: /narrowest door the door that decides/ })).toBeVisible()
  await page.keyboard.press('Escape')
  await expect(words).toBeHidden()
  await devices.getByRole('link', { name: 'Gallery dock' }).click()
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Gallery dock')
})
