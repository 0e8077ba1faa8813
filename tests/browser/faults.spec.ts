import { expect, open, ownSite, test } from '../support/pages'

type Page = import('@playwright/test').Page

const next = (page: Page) => page.getByRole('region', { name: 'Try this next' })
const causes = (page: Page) => page.getByRole('region', { name: 'What may be wrong' }).getByRole('listitem')

test('a fault is searched from what the computer says to the lead that is to blame, and what follows is a press', async ({
  page,
}) => {
  const site = await ownSite(page)
  await open(page, `${site}/runs/r-12`)
  // what is worked out beside the page stands above the link, and moves it as it comes
  await expect(page.locator('[aria-busy="true"]')).toHaveCount(0)
  await page.getByRole('link', { name: 'Something is wrong with it' }).click()
  await expect(page.getByLabel('Which run')).toHaveValue('R-12')
  await page.getByRole('button', { name: 'Search for the fault' }).click()
  await expect(page.getByRole('alert')).toContainText('choose what you see')
  await page
    .getByLabel('Or paste what the computer says')
    .fill('usb 1-1: new high-speed USB device number 9 using xhci_hcd\nsomething of no use')
  await page.getByRole('button', { name: 'Search for the fault' }).click()
  await expect(page.getByRole('heading', { name: 'What is wrong with R-12?' })).toBeVisible()
  await expect(page.getByRole('region', { name: 'What was seen' })).toContainText('new high-speed USB device')
  // what Match blocks is told before anything is tried
  await expect(page.getByText('Match calls this run blocked')).toBeVisible()

  // one thing at a time until it is said to be found
  const others = page.getByText(/Something else was tried/)
  await others.click()
  await page.getByRole('button', { name: /^It is gone: Put C-\d+ in place of C-0027/ }).click()
  await expect(page.getByRole('region', { name: 'What was tried' })).toContainText('Another lead: It is gone')
  await expect(causes(page).first()).toContainText('C-0027')

  // what was tried is taken back, and the odds with it
  const odds = await causes(page).first().textContent()
  await page.getByRole('button', { name: /^Take back: Another lead/ }).click()
  await expect(page.getByText('Nothing was tried yet.')).toBeVisible()
  expect(await causes(page).first().textContent()).not.toBe(odds)

  await page
    .getByLabel('What it was')
    .selectOption((await page.locator('option:has-text("C-0027")').first().getAttribute('value')) ?? '')
  await page.getByRole('button', { name: 'That is it' }).click()
  await expect(page.getByRole('heading', { name: 'Found' })).toBeVisible()
  await page.getByRole('button', { name: 'Retire C-0027' }).click()
  await expect(page.getByRole('button', { name: 'Retire C-0027' })).toHaveCount(0)
  await open(page, `${site}/faults`)
  await expect(page.getByRole('region', { name: 'Ended' })).toContainText('Found: The lead C-0027')
  await open(page, `${site}/history`)
  await expect(page.getByText(/ended the search of R-12/)).toBeVisible()
})

test('a stop is not clicked away, and nothing is proposed before it is dealt with', async ({ page }) => {
  const site = await ownSite(page)
  await open(page, `${site}/faults?run=r-12`)
  await page.getByRole('checkbox', { name: /^A disk asks to be formatted/ }).check()
  await page.getByRole('button', { name: 'Search for the fault' }).click()
  const stop = page.getByRole('alert', { name: /^Stop: A disk asks/ })
  await expect(stop).toBeVisible()
  await expect(next(page)).toHaveCount(0)
  await stop.getByLabel('What was done about it').fill('copied everything off it')
  await stop.getByRole('button', { name: 'Go on with the search' }).click()
  await expect(page.getByText(/say that it is so/)).toBeVisible()
  await expect(stop).toBeVisible()
  await stop.getByLabel(/^Its data is safe/).check()
  await stop.getByRole('button', { name: 'Go on with the search' }).click()
  await expect(stop).toHaveCount(0)
  await expect(next(page)).toBeVisible()
})

test('what was measured is held against what can be expected, step by step, and that may be the end', async ({
  page,
}) => {
  const site = await ownSite(page)
  await open(page, `${site}/faults?run=r-18`)
  await page.getByRole('checkbox', { name: /^Copies are far below/ }).check()
  await page.getByRole('button', { name: 'Search for the fault' }).click()
  await page.getByText('First: is anything wrong?').click()
  await page.getByLabel('How much').fill('3000')
  await page.getByRole('button', { name: 'Hold it against the plan' }).click()
  await expect(page.getByText(/can be expected\. Nothing is wrong/)).toBeVisible()
  await expect(page.getByText('less the coding of the link')).toBeVisible()
  await page.getByRole('button', { name: 'Nothing is wrong', exact: true }).click()
  await expect(page.getByRole('heading', { name: 'Nothing was wrong' })).toBeVisible()
})

test('somebody who is there answers on a phone, and whoever asked sees it come', async ({ page, browser }) => {
  const site = await ownSite(page)
  await open(page, `${site}/faults/search-debrief`)
  const there = await (await browser.newContext({ viewport: { width: 390, height: 844 } })).newPage()
  await open(there, `${site}/faults/search-debrief/afar`)
  await expect(there.getByRole('region', { name: 'Which lead it is' })).toContainText('C-0008')
  const step = await there.getByRole('heading', { level: 2 }).first().textContent()
  await there.getByRole('button', { name: 'It is the same' }).click()
  await expect(there.getByRole('heading', { level: 2 }).first()).not.toHaveText(step ?? '')
  await expect(page.getByRole('region', { name: 'What was tried' }).getByRole('listitem')).toHaveCount(2)
  await there.getByRole('button', { name: 'No', exact: true }).click()
  await expect(page.getByRole('region', { name: 'What was seen' })).toContainText('not so:')
  await there.close()
})

test('two who search at once both keep what they found, and a run that goes takes its search along in words', async ({
  page,
  browser,
}) => {
  const site = await ownSite(page)
  await open(page, `${site}/faults/search-debrief`)
  const other = await (await browser.newContext()).newPage()
  await other.goto(`${site}/faults/search-debrief`)
  await other.getByRole('button', { name: /^No: / }).first().click()
  await next(page)
    .getByRole('button', { name: /^It is the same/ })
    .click()
  await expect(page.getByRole('region', { name: 'What was seen' })).toContainText('not so:')
  await expect(page.getByRole('region', { name: 'What was tried' }).getByRole('listitem')).toHaveCount(2)
  await open(other, `${site}/runs/r-20`)
  await other.getByRole('button', { name: 'Delete this run' }).click()
  await expect(other).not.toHaveURL(/r-20/)
  await expect(page.getByText('This search is not there any more')).toBeVisible()
  await other.close()
})

test('before anything is wrong one sees what would be seen, and what tells it from what looks alike', async ({
  page,
}) => {
  await open(page, '/sites/saltmarsh/runs/r-12')
  await page.getByRole('link', { name: 'What would I see if something were wrong?' }).click()
  await expect(page.getByRole('heading', { level: 1 })).toContainText('What would I see')
  await expect(page.getByText('What tells them apart').first()).toBeVisible()
  await expect(page.getByText('common practice').first()).toBeVisible()
})

test('a log of megabytes is read as far as it says something, and what is passed over is named', async ({ page }) => {
  const site = await ownSite(page)
  const log = `${'something else altogether\n'.repeat(200_000)}usb 4-2: USB disconnect, device number 7\n`
  const sent = await page.request.post(`${site}/faults`, {
    multipart: { run: 'r-12', pasted: `usb 4-2: USB disconnect, device number 7\n${log}` },
    maxRedirects: 0,
  })
  expect(sent.status()).toBe(302)
  await open(page, sent.headers().location as string)
  await expect(page.getByText(/lines were passed over, such as: something else altogether/)).toBeVisible()
  await expect(page.getByRole('region', { name: 'What was seen' })).toContainText('It drops after a while')
  const tooLong = await page.request.post(`${site}/faults`, {
    multipart: { run: 'r-12', pasted: 'x'.repeat(11_000_000) },
    maxRedirects: 0,
  })
  expect(tooLong.status()).toBe(400)
  expect(await tooLong.text()).toContain('A field of the form is longer than it can be. Nothing was saved.')
})

test('what tests of the run have shown is taken over with a press', async ({ page }) => {
  const site = await ownSite(page)
  await open(page, `${site}/prove/r-12`)
  const card = page.getByRole('listitem').filter({ has: page.getByRole('heading', { name: 'The link comes up' }) })
  await card.getByLabel(/^What you read/).selectOption('nothing')
  await card.getByRole('button', { name: /^Write it down/ }).click()
  await expect(card).toContainText('nothing came up')
  await open(page, `${site}/faults?run=r-12`)
  await page.getByRole('checkbox', { name: /^It drops after a while/ }).check()
  await page.getByRole('button', { name: 'Search for the fault' }).click()
  await page.getByRole('button', { name: 'Take that over' }).click()
  await expect(page.getByRole('region', { name: 'What was seen' })).toContainText('Nothing is detected')
})
