import type { Page } from '@playwright/test'
import { expect, open, ownSite, test } from '../support/pages'

const step = (page: Page) => page.getByRole('region', { name: 'Step' })
const cellOf = (page: Page, tag: string, text: string | RegExp) =>
  page.getByRole('row', { name: new RegExp(tag) }).getByRole('cell', { name: text })

/** Leaves the tests of one controller and one charger: each other controller and charger is proposed behind them. */
async function firstFive(page: Page) {
  await expect(page.getByRole('group', { name: 'Test 6' })).toBeVisible()
  const count = await page.getByRole('group', { name: /^Test \d+$/ }).count()
  for (let test = count; test > 5; test -= 1) await page.getByRole('button', { name: `Remove test ${test}` }).click()
}

test('a heap is sorted out: tests proposed, one step at a time, readings kept at once, left and gone on with', async ({
  page,
}) => {
  const site = await ownSite(page)
  await open(page, `${site}/drawer/sessions/new?cables=c-0021+c-0023`)
  await firstFive(page)
  await page.getByRole('button', { name: 'Remove test 3' }).click()
  await page.getByRole('group', { name: 'Test 1' }).getByLabel('soak, seconds').fill('0')
  await page.getByRole('button', { name: 'Start the session' }).click()
  await expect(page.getByText('0 of 8')).toBeVisible()
  await expect(step(page)).toContainText('C-0021')
  await step(page).getByRole('button', { name: 'Thunderbolt 40 Gb/s' }).click()
  await expect(page.getByText('1 of 8')).toBeVisible()
  await step(page).getByLabel('Megabytes a second').fill('lots')
  await step(page).getByRole('button', { name: 'Save', exact: true }).click()
  await expect(page.getByRole('alert')).toContainText('such as 412')
  await step(page).getByLabel('Megabytes a second').fill('700')
  await step(page).getByRole('button', { name: 'Save', exact: true }).click()
  await expect(cellOf(page, 'C-0021', /700 MB\/s fails/)).toBeVisible()
  const address = page.url()
  await open(page, `${site}/drawer/sessions`)
  await expect(page.getByText('2 of 8')).toBeVisible()
  await open(page, address)
  await step(page).getByRole('button', { name: 'Cool' }).click()
  await expect(step(page)).toContainText('Put the first end')
  await expect(page.getByText('3 of 8')).toBeVisible()
  // a cell of the table opens its test again
  await cellOf(page, 'C-0021', /700 MB/)
    .getByRole('link')
    .click()
  await step(page).getByLabel('Megabytes a second').fill('3000')
  await step(page).getByRole('button', { name: 'Save', exact: true }).click()
  // what was less stands beside it
  await expect(cellOf(page, 'C-0021', /3000 MB\/s comes and goes: failed in 1 of 2/)).toBeVisible()
})

test('a soak runs while the next lead is tested; the meter shows the drop, and the lead is retired', async ({
  page,
}) => {
  const site = await ownSite(page)
  await open(page, `${site}/drawer/sessions/new?cables=c-0021+c-0023`)
  await firstFive(page)
  await page.getByRole('button', { name: 'Start the session' }).click()
  const soaking = (await step(page).getByRole('heading').textContent()) ?? ''
  await step(page).getByRole('button', { name: 'Start the soak' }).click()
  // meanwhile the other lead's turn comes, on ports that are free
  const tray = page.getByRole('region', { name: 'Soaks that run' })
  await expect(tray.getByRole('timer')).toHaveText(/\d+ s/)
  await expect(step(page)).not.toContainText(soaking)
  await expect(step(page)).toContainText('Desk charger')
  await tray.getByRole('link', { name: soaking }).click()
  await expect(step(page).getByRole('timer')).toBeVisible()
  await step(page).getByText('Simulated bench meter').click()
  await page.getByLabel('On the bench lies').selectOption('drops')
  await page.getByLabel('Its clock').selectOption('10')
  await page.getByRole('button', { name: 'Start the meter' }).click()
  const shown = page.getByRole('group', { name: 'What the meter shows' })
  await expect(shown).toContainText('Thunderbolt 40 Gb/s')
  await expect(shown).toContainText('dropped')
  await page.getByRole('button', { name: 'Take these readings' }).click()
  const row = page.getByRole('row', { name: new RegExp(soaking) })
  await expect(row).toContainText(/dropped, \d+ s/)
  await expect(row).toContainText('Retire it')
  await page.getByRole('button', { name: 'Retire the one that failed' }).click()
  await expect(row).toContainText('retired')
  await expect(step(page)).not.toContainText(soaking)
})

test('two technicians at one session lose nothing', async ({ page, context }) => {
  const site = await ownSite(page)
  const other = await context.newPage()
  const address = `${site}/drawer/sessions/gallery-drawer?cable=c-0056&test=`
  await open(page, `${address}t4`)
  await open(other, `${address}t5`)
  await Promise.all([
    step(page).getByRole('button', { name: 'Warm', exact: true }).click(),
    step(other).getByLabel('Watts').fill('57'),
  ])
  await step(other).getByRole('button', { name: 'Save', exact: true }).click()
  await expect(cellOf(other, 'C-0056', /57 W as it should/)).toBeVisible()
  await expect(cellOf(other, 'C-0056', /warm less/)).toBeVisible()
  await page.reload()
  await expect(cellOf(page, 'C-0056', /57 W/)).toBeVisible()
})
