import { expect, ownSite, test } from '../support/pages'

test.use({ javaScriptEnabled: false })

test('before scripts load a run can be read, changed and saved', async ({ page }) => {
  const site = await ownSite(page)
  await page.goto(`${site}/runs/r-09`)
  await expect(page.getByRole('img', { name: /Gallery dock: Blocked/ })).toBeVisible()
  // what only scripts can do is not offered
  const needingScripts = page.locator('button[type=button]:not([aria-expanded])')
  expect(await needingScripts.count()).toBeGreaterThan(0)
  await expect(needingScripts.filter({ visible: true })).toHaveCount(0)
  await page.getByLabel('Cable', { exact: true }).selectOption('c-0021')
  await page.getByRole('button', { name: 'Save the run' }).click()
  await expect(page.getByText('R-09 is saved.')).toBeVisible()
  await expect(page.getByRole('img', { name: /Gallery dock: Clear/ })).toBeVisible()
})

test('before scripts load a line can be added, and a fault keeps what was typed', async ({ page }) => {
  const site = await ownSite(page)
  await page.goto(`${site}/runs/r-13`)
  await page.getByLabel('Note').fill('keep this')
  await page.getByRole('button', { name: 'Add a need' }).click()
  await expect(page.getByRole('group', { name: 'Need 2' })).toBeVisible()
  await expect(page.getByLabel('Note')).toHaveValue('keep this')
  await page.getByRole('group', { name: 'Need 2' }).getByLabel('How much').fill('lots')
  await page.getByRole('button', { name: 'Save the run' }).click()
  await expect(page.getByText(/Write a picture like/)).toBeVisible()
  await expect(page.getByLabel('Note')).toHaveValue('keep this')
})

test('before scripts load places and devices come in from lines, and many are renamed at once', async ({ page }) => {
  const site = await ownSite(page)
  await page.goto(`${site}/survey`)
  await page.getByText('Add places and devices').click()
  await page.getByLabel('Places and devices, a line each').fill('Bell tower:\nTower laptop\nblender')
  await page.getByRole('button', { name: 'Add these', exact: true }).click()
  await expect(page.getByText('Line 3: Say what "blender" is')).toBeVisible()
  await page.getByText('Add places and devices').click()
  await page.getByLabel('Places and devices, a line each').fill('Bell tower:\nTower laptop')
  await page.getByRole('button', { name: 'Add these', exact: true }).click()
  await expect(page.getByText('Added Tower laptop.')).toBeVisible()
  await page.goto(`${site}/many?list=devices&do=rename&find=Tower&replace=Belfry&id=tower-laptop`)
  await expect(page.getByRole('cell', { name: 'the name from Tower laptop to Belfry laptop' })).toBeVisible()
  await page.getByRole('button', { name: 'Change 1' }).click()
  await expect(page.getByText('It is done, as one change.')).toBeVisible()
})

test('before scripts load a run is deleted and put back', async ({ page }) => {
  const site = await ownSite(page)
  await page.goto(`${site}/runs/r-16`)
  await page.getByRole('button', { name: 'Delete this run' }).click()
  await page.getByRole('button', { name: 'Undo' }).first().click()
  await expect(page.getByText('R-16 is back.')).toBeVisible()
})

test('before scripts load a cable is added, and a reading of a session is saved', async ({ page }) => {
  const site = await ownSite(page)
  await page.goto(`${site}/drawer/add`)
  await page
    .getByRole('group', { name: /First end/ })
    .getByLabel('type-C')
    .check()
  await page.getByRole('group', { name: 'Second end' }).getByLabel('type-C').check()
  await page.getByLabel('Length').fill('2 m')
  await page.getByRole('button', { name: 'Add to the drawer' }).click()
  await expect(page.getByText('C-0057 is in the drawer')).toBeVisible()
  await page.goto(`${site}/drawer/sessions/gallery-drawer?cable=c-0056&test=t4`)
  await page.getByRole('button', { name: 'Warm', exact: true }).click()
  await expect(page.getByRole('row', { name: /C-0056/ }).getByRole('cell', { name: /warm less/ })).toBeVisible()
})
