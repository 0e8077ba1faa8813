import type { Browser, Page } from '@playwright/test'
import { expect, open, ownSite, test } from '../support/pages'

/** A second person with a browser of her own. */
async function colleague(browser: Browser, name: string, path: string): Promise<Page> {
  const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage()
  await named(page, name, path)
  return page
}

async function named(page: Page, name: string, path: string): Promise<void> {
  await open(page, `/who?${new URLSearchParams({ back: path })}`)
  await page.getByLabel('Your name').fill(name)
  await page.getByRole('button', { name: 'Save my name' }).click()
  await page.waitForURL(`**${path}`)
  await page.waitForSelector('html[data-ready]')
}

const field = (page: Page, name: string) => page.getByRole('textbox', { name, exact: true })
async function saveRun(page: Page): Promise<void> {
  const saved = page.waitForResponse((answer) => answer.request().method() === 'POST')
  await page.getByRole('button', { name: 'Save the run' }).click()
  await saved
  await expect(page.getByText('is saved.')).toBeVisible()
  await expect(page.locator('main')).toHaveAttribute('aria-busy', 'false')
}

test('a name is asked for with the first save and not before, and is shown beside what is changed', async ({
  page,
}) => {
  const site = await ownSite(page)
  await open(page, `${site}/runs/r-01`)
  await expect(page.getByText('Your name, for the history')).toHaveCount(0)
  await field(page, 'Note').fill('by nobody')
  await saveRun(page)
  await page.getByRole('textbox', { name: 'Your name' }).fill('Ada')
  await page.getByRole('button', { name: 'Save my name' }).click()
  await expect(page.getByText('Your name, for the history')).toHaveCount(0)
  await expect(page.getByRole('link', { name: 'Ada' })).toBeVisible()
  await field(page, 'Note').fill('by Ada')
  await saveRun(page)
  await page.getByRole('link', { name: 'Its history' }).click()
  await expect(page.getByRole('heading', { name: 'History of run R-01' })).toBeVisible()
  await expect(page.getByText('Ada changed R-01: the note.')).toBeVisible()
})

test('what a colleague changes arrives, is told in a line, and leaves what is typed alone', async ({
  page,
  browser,
}) => {
  const site = await ownSite(page)
  await named(page, 'Ada', `${site}/runs/r-09`)
  const grace = await colleague(browser, 'Grace', `${site}/runs/r-09`)
  await field(page, 'Note').fill('half a sentence')
  await field(grace, 'Tag').fill('R-99')
  await saveRun(grace)
  await expect(page.getByText('Grace renamed R-09 to R-99.')).toBeVisible({ timeout: 4000 })
  await expect(page.getByText('This run was changed meanwhile.')).toBeVisible()
  await expect(field(page, 'Note')).toHaveValue('half a sentence')
  await saveRun(page)
  await expect(field(page, 'Tag')).toHaveValue('R-99')
  await expect(field(page, 'Note')).toHaveValue('half a sentence')
  // who had typed nothing follows
  await expect(field(grace, 'Note')).toHaveValue('half a sentence')
  await grace.context().close()
})

test('a page that is open while Hallway is updated opens itself anew, once, with what was typed', async ({
  page,
  browser,
}) => {
  const site = await ownSite(page)
  await named(page, 'Ada', `${site}/runs/r-09`)
  const grace = await colleague(browser, 'Grace', `${site}/runs/r-09`)
  await field(page, 'Note').fill('half a sentence')
  // what answers tells copies in another shape, until the page is asked for anew
  let updated = true
  const opened: string[] = []
  await page.route(/\/(copy|changes)\?/, (route) => (updated ? route.fulfill({ status: 409 }) : route.continue()))
  await page.route(/\/runs\/r-09$/, async (route) => {
    opened.push(route.request().resourceType())
    updated = false
    await route.continue()
  })
  await field(grace, 'Tag').fill('R-99')
  await saveRun(grace)
  await expect(field(page, 'Tag')).toHaveValue('R-99')
  await expect(field(page, 'Note')).toHaveValue('half a sentence')
  expect(opened).toEqual(['document'])
  // while the two go on differing it does not open itself over and over
  updated = true
  await page.unroute(/\/runs\/r-09$/)
  await field(grace, 'Tag').fill('R-98')
  await saveRun(grace)
  await expect(page.getByText('Hallway is being updated.')).toBeVisible()
  await grace.context().close()
})

test('what is typed right after a save, or while it is under way, is not lost', async ({ page }) => {
  const site = await ownSite(page)
  await open(page, `${site}/runs/r-01`)
  await field(page, 'Note').fill('first')
  // the page stands still until the answer is there, so whoever goes on at once is let in right after it
  let answer = () => {}
  const goingOn = new Promise<void>((done) => {
    answer = done
  })
  await page.route('**/runs/r-01.data*', async (route) => {
    const response = await route.fetch()
    await goingOn
    await route.fulfill({ response })
  })
  await page.getByRole('button', { name: 'Save the run' }).click()
  await expect(page.locator('main')).toHaveAttribute('aria-busy', 'true')
  const inTheField = field(page, 'Note').click()
  answer()
  await inTheField
  await page.keyboard.press('End')
  await page.keyboard.type(' and more')
  await saveRun(page)
  await expect(field(page, 'Note')).toHaveValue('first and more')
  const plan = await (await page.request.get(`${site}/plan.json`)).json()
  expect(plan.runs[0].note).toBe('first and more')
})

test('the same field is a conflict that shows both; nothing of either is lost', async ({ page, browser }) => {
  const site = await ownSite(page)
  await named(page, 'Ada', `${site}/runs/r-09`)
  const grace = await colleague(browser, 'Grace', `${site}/runs/r-09`)
  await field(page, 'Note').fill('Ada says')
  await field(grace, 'Note').fill('Grace says')
  await field(grace, 'Tag').fill('R-98')
  await saveRun(grace)
  await expect(page.getByText('This run was changed meanwhile.')).toBeVisible()
  await page.getByRole('button', { name: 'Save the run' }).click()
  await expect(page.getByRole('row', { name: /Note you say Ada says Grace says Grace says/ })).toBeVisible()
  await expect(page.getByText('Grace changed the same of this run')).toBeFocused()
  await page.getByRole('button', { name: 'Save mine over theirs' }).click()
  await page.waitForURL('**done=saved*')
  await expect(field(page, 'Note')).toHaveValue('Ada says')
  // what only she had changed stays hers
  await expect(field(page, 'Tag')).toHaveValue('R-98')
  await grace.context().close()
})

test('a cable too: two who change different things both win', async ({ page, browser }) => {
  const site = await ownSite(page)
  await named(page, 'Ada', `${site}/cables/c-0040`)
  const grace = await colleague(browser, 'Grace', `${site}/cables/c-0040`)
  for (const each of [page, grace]) await each.getByText('Edit this cable').click()
  await page.getByLabel('Note').fill('Ada’s note')
  await grace.getByLabel('Thickness').fill('4.5')
  await grace.getByRole('button', { name: 'Save the cable' }).click()
  await grace.waitForURL('**done=saved*')
  await expect(page.getByText('This cable was changed meanwhile.')).toBeVisible()
  await page.getByRole('button', { name: 'Save the cable' }).click()
  await page.waitForURL('**done=saved*')
  const plan = await (await page.request.get(`${site}/plan.json`)).json()
  expect(plan.cables.find(({ id }: { id: string }) => id === 'c-0040')).toMatchObject({
    note: 'Ada’s note',
    thickness: 4.5,
  })
  await grace.context().close()
})

test('any change can be undone from the history, and what cannot says why', async ({ page }) => {
  const site = await ownSite(page)
  await open(page, `${site}/runs/r-01`)
  await field(page, 'Note').fill('first')
  await saveRun(page)
  await field(page, 'Note').fill('second')
  await saveRun(page)
  await page.getByRole('link', { name: 'History', exact: true }).click()
  const lines = page.locator('li[id^=change-]')
  await expect(lines).toHaveCount(3)
  // whether it fits is found when it is asked for, and said in words
  await page.getByRole('button', { name: 'Undo change 2' }).click()
  await expect(page.getByText(/Nothing was changed: .*R-01 was changed since/)).toBeVisible()
  await expect(lines).toHaveCount(3)
  await page.getByRole('button', { name: 'Undo change 3' }).click()
  await expect(page.getByText(/undid: changed R-01: the note/)).toBeVisible()
  await page.getByRole('button', { name: 'Undo change 2' }).click()
  await expect(lines).toHaveCount(5)
  await page.getByLabel('Of one run, cable, device or need').fill('r-01')
  await page.getByRole('button', { name: 'Show', exact: true }).click()
  await expect(page.getByRole('heading', { name: 'History of run R-01' })).toBeVisible()
  await expect(lines).toHaveCount(5)
  await page.getByLabel('Of one run, cable, device or need').fill('gallery laptop')
  await page.getByRole('button', { name: 'Show', exact: true }).click()
  await expect(page.getByRole('heading', { name: 'History of device Gallery laptop' })).toBeVisible()
  await expect(lines).toHaveCount(1)
  await open(page, `${site}/runs/r-01`)
  await expect(field(page, 'Note')).toHaveValue('')
})

test('what was written of a cable is taken back with a reason, and no longer counts', async ({ page }) => {
  const site = await ownSite(page)
  await open(page, `${site}/cables/c-0020`)
  await page.getByText('Take back').first().click()
  await page.getByLabel('Why it does not count').first().fill('it was another lead')
  await page.getByRole('button', { name: 'Take it back' }).first().click()
  await expect(page.getByText(/taken back.*: it was another lead/)).toBeVisible()
  await expect(page.getByText('Nobody has tried it yet.')).toBeVisible()
})

test('what the simulated meter says counts on a site to practise on, and on no other', async ({ page }) => {
  const site = await ownSite(page)
  const of = async () => (await page.request.get(`${site}/plan.json`)).json()
  expect((await of()).site.practice).toBe(true)
  await open(page, `${site}/policy`)
  await page.getByLabel('A site to practise on').uncheck()
  await page.getByRole('button', { name: 'Save the site' }).click()
  await page.waitForURL('**done=site*')
  expect((await of()).site.practice).toBe(false)
  const answer = await page.request.post(`${site}/drawer/sessions/gallery-drawer`, {
    form: { cable: 'c-0056', meter: 'simulated', seconds: '90', 'reading-t1': 'tbt3-40' },
    maxRedirects: 0,
  })
  expect(answer.status()).toBe(302)
  await open(page, `${site}/cables/c-0056`)
  await expect(page.getByText('(simulated, does not count)')).toBeVisible()
  await expect(page.getByText('Nobody has tried it yet.')).toBeVisible()
  await open(page, `${site}/policy`)
  await page.getByLabel('A site to practise on').check()
  await page.getByRole('button', { name: 'Save the site' }).click()
  await page.waitForURL('**done=site*')
  await open(page, `${site}/cables/c-0056`)
  await expect(page.getByText('Nobody has tried it yet.')).toHaveCount(0)
})

test('a site is renamed, put away and brought back', async ({ page }) => {
  const site = await ownSite(page)
  const name = `Lock ${Date.now()}`
  await open(page, `${site}/policy`)
  await page.getByLabel('Name', { exact: true }).fill(name)
  // saving the other form of the page leaves this one as it is
  await page.getByLabel('By the bench').check()
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(page.getByText('The rules are saved.')).toBeVisible()
  await expect(page.getByLabel('Name', { exact: true })).toHaveValue(name)
  await page.getByLabel('Put away').check()
  await page.getByRole('button', { name: 'Save the site' }).click()
  await page.waitForURL('**done=site*')
  await open(page, '/')
  await expect(page.getByRole('link', { name })).toBeHidden()
  await page.getByText('Put away (').click()
  await page.getByRole('link', { name }).click()
  await expect(page.getByRole('heading', { name: 'Runs' })).toBeVisible()
})
