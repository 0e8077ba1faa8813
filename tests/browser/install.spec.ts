import { expect, open, ownSite, test } from '../support/pages'

test('a run is laid with another lead than was planned, judged as it lies, taken out and undone', async ({ page }) => {
  const site = await ownSite(page)
  await open(page, `${site}/install`)
  await expect(page.getByText(/^6 of 20/)).toBeVisible()
  const card = page.getByRole('region', { name: 'R-09', exact: true })
  await expect(card).toContainText('C-0017')
  await card.getByLabel(/^Leads, from the host on/).fill('C-0021')
  await card.getByRole('button', { name: 'R-09 is laid' }).click()
  await expect(page.getByText('It is done').first()).toBeVisible()
  await expect(page.getByText(/^7 of 20/)).toBeVisible()
  await expect(card).toHaveCount(0)
  // the run changed with it: what was blocked is clear
  await open(page, `${site}/runs/r-09`)
  await expect(page.locator('[data-verdict]')).toContainText('Clear')
  await open(page, `${site}/install?all=on`)
  await expect(card).toContainText('Its leads are taken out')
  await card.getByRole('button', { name: /taken out/ }).click()
  await expect(page.getByText(/^6 of 20/)).toBeVisible()
  await page.getByRole('button', { name: 'Undo' }).first().click()
  await expect(page.getByText(/^7 of 20/)).toBeVisible()
})

test('what is typed wrong is said at the run, and what broke it when it was brought up stands with the run', async ({
  page,
}) => {
  const site = await ownSite(page)
  await open(page, `${site}/install`)
  const card = page.getByRole('region', { name: 'R-08', exact: true })
  await card.getByLabel(/^Leads, from the host on/).fill('C-9999')
  await card.getByRole('button', { name: 'R-08 is laid' }).click()
  await expect(card).toContainText('the drawer has no cable C-9999')
  await card.getByText('Bring it up part by part').click()
  await card.getByLabel(/^It broke when this was added/).selectOption('C-0044')
  await card.getByRole('button', { name: 'R-08 is brought up' }).click()
  await expect(page.getByText('It is done').first()).toBeVisible()
  await open(page, `${site}/runs/r-08`)
  await expect(page.getByText(/it broke when C-0044 was added/).first()).toBeVisible()
})
