import { expect, open, ownSite, test, verdictOf } from '../support/pages'

const whatIf = (page: Parameters<typeof verdictOf>[0]) => page.getByRole('region', { name: 'What if' })

test('what is tried on a run is kept with what was typed, as one change, and one undo takes both back', async ({
  page,
}) => {
  const site = await ownSite(page)
  await open(page, `${site}/runs/r-13`)
  const strip = whatIf(page)
  await expect(verdictOf(page)).toHaveText('Tight')
  await page.getByLabel('Note').fill('a larger one was tried')
  await strip.getByRole('combobox').selectOption('Desk charger gives 45 W')
  await expect(strip).toContainText('R-13 Tight to Blocked')
  await strip.getByRole('button', { name: 'Keep it' }).click()
  await expect(page.getByText('It is done, as it was shown.')).toBeVisible()
  await expect(verdictOf(page)).toHaveText('Blocked')
  await expect(page.getByLabel('Note')).toHaveValue('a larger one was tried')
  // what is kept is no longer something to try
  await expect(strip.getByRole('button', { name: 'Keep it' })).toHaveCount(0)
  await expect(strip.getByRole('option', { name: 'Desk charger gives 45 W' })).toHaveCount(0)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(verdictOf(page)).toHaveText('Tight')
  await expect(page.getByLabel('Note')).toHaveValue('')
  await open(page, `${site}/history`)
  await expect(page.getByText('kept a what-if on R-13: Desk charger gives 45 W').first()).toBeVisible()
})

test('a policy that was tried is kept for the whole site, and a desk is planned for who was tried there', async ({
  page,
}) => {
  const site = await ownSite(page)
  await open(page, `${site}/runs/r-09`)
  const strip = whatIf(page)
  await strip.getByRole('combobox').selectOption('by the bench')
  await expect(strip).toContainText('If you keep it, it holds for the whole site')
  await strip.getByRole('button', { name: 'Keep it' }).click()
  await expect(page.getByRole('link', { name: 'by the bench' })).toBeVisible()
  await strip.getByRole('combobox').selectOption('Second instructor laptop')
  await strip.getByRole('button', { name: 'Keep it' }).click()
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('R-09: Second instructor laptop to Gallery dock')
  // who was planned for comes and goes now
  await expect(strip.getByRole('option', { name: 'Gallery laptop' })).toHaveCount(1)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('R-09: Gallery laptop to Gallery dock')
})

test('the whole way of a need is tried: what it asks, a run of it, a lead, a policy; and kept', async ({ page }) => {
  const site = await ownSite(page)
  await open(page, `${site}/needs/view-1-picture`)
  await expect(page.getByText('Clear', { exact: true }).first()).toBeVisible()
  await page.getByLabel('How much').fill('7680x4320@120')
  await expect(whatIf(page)).toContainText('Clear to Blocked')
  await whatIf(page).getByRole('button', { name: 'Reset' }).click()
  await expect(page.getByLabel('How much')).toHaveValue('3840x2160@60')
  await expect(whatIf(page).getByRole('button', { name: 'Reset' })).toHaveCount(0)
  await open(page, `${site}/needs/log-picture`)
  const strip = whatIf(page)
  const verdict = page.getByRole('heading', { level: 1 }).locator('..')
  const corridor = page.getByRole('region', { name: 'Corridor of the log picture' })
  // what shares its way walks beside it
  await expect(corridor.getByRole('img')).toContainText(
    'chart picture from host to device, from Gallery laptop to Gallery dock: Clear',
  )
  await expect(verdict).toContainText('Blocked')
  await strip.getByText('had another lead or port').click()
  await strip.getByLabel('Cable of R-09').selectOption('c-0021')
  await expect(verdict).toContainText('Clear')
  await strip.getByLabel('Run', { exact: true }).selectOption('R-11')
  await page.getByRole('slider').fill('9')
  await expect(verdict).toContainText('Blocked')
  await page.getByRole('slider').fill('1.5')
  await strip.locator('select').last().selectOption('with pictures that reserve their own rate')
  await expect(strip).toContainText('R-09 Blocked to Clear')
  await strip.getByRole('button', { name: 'Keep it' }).click()
  await expect(page.getByText('It is done, as it was shown.')).toBeVisible()
  await expect(verdict).toContainText('Clear')
  await open(page, `${site}/runs/r-09`)
  await expect(page.getByLabel('Cable', { exact: true })).toHaveValue('c-0021')
  await open(page, `${site}/runs/r-11`)
  await expect(page.getByLabel('Route length')).toHaveValue('1.5 m')
  await open(page, `${site}/policy`)
  await expect(page.getByRole('radio', { name: /Its own stream rate/ })).toBeChecked()
})

test('a run of its way is tried at another device: the need stays asked, and what is kept is what was shown', async ({
  page,
}) => {
  const site = await ownSite(page)
  await open(page, `${site}/needs/scoring-picture`)
  const strip = whatIf(page)
  await strip.getByText('had another lead or port').click()
  await strip.getByLabel('Device port').selectOption('projector/hdmi')
  await expect(page.getByText('No path of runs, docks and hubs joins the two yet.')).toBeVisible()
  await expect(page.getByRole('heading', { level: 1 }).locator('..')).toContainText('Blocked')
  await expect(page.getByRole('region', { name: 'Findings' })).toContainText('No path of runs')
  await strip.getByRole('button', { name: 'Reset' }).click()
  await expect(page.getByRole('region', { name: 'Corridor of the picture' })).toBeVisible()
})

test('a lead that lies elsewhere is tried all the same, and keeping it says where it lies', async ({ page }) => {
  const site = await ownSite(page)
  await open(page, `${site}/needs/log-picture`)
  const strip = whatIf(page)
  await strip.getByText('had another lead or port').click()
  await strip.getByLabel('Cable of R-09').selectOption('c-0029')
  await strip.getByRole('button', { name: 'Keep it' }).click()
  await expect(page.getByRole('alert')).toContainText('Nothing was saved')
})

test("a run's own form offers what is often wanted between its ends, and tells what a size comes to", async ({
  page,
}) => {
  const site = await ownSite(page)
  await open(page, `${site}/runs/r-14`)
  await page.getByText('Often wanted between these two').click()
  await page.getByRole('button', { name: 'Add 4K at 60 Hz, high dynamic range' }).click()
  const need = page.getByRole('group', { name: 'Need 2' })
  await expect(need.getByLabel('How much')).toHaveValue('3840x2160@60 HDR')
  await expect(need.getByText('15.68 Gb/s · 1960 MB/s')).toBeVisible()
  await expect(page.getByRole('region', { name: 'Findings' })).toContainText('takes high dynamic range is not known')
  await page.getByRole('button', { name: 'Save the run' }).click()
  await expect(page.getByText('R-14 is saved.')).toBeVisible()
  await expect(page.getByRole('group', { name: 'Need 2' }).getByLabel('How much')).toHaveValue(
    '3840x2160@60 10 bit HDR',
  )
})

test('what was tried is refused where it cannot be read, or is no longer there to try', async ({ page }) => {
  const site = await ownSite(page)
  await open(page, `${site}/runs/r-13`)
  for (const tried of ['{', '{"words":1}', JSON.stringify({ words: 'by the moon', on: [], runs: [] })]) {
    const answer = await page.evaluate(async (text) => {
      const form = document.querySelector<HTMLFormElement>('form[aria-label="Run"]')
      const sent = new FormData(form as HTMLFormElement)
      sent.set('tried', text)
      const { status } = await fetch(location.href, { method: 'POST', body: new URLSearchParams([...sent] as never) })
      return status
    }, tried)
    expect(answer).toBe(422)
  }
})
