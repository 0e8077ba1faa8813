import { expect, open, ownSite, test, verdictOf } from '../support/pages'

test('a blocked run says what would make it clear, does it as one change, and takes it back', async ({ page }) => {
  const site = await ownSite(page)
  await open(page, `${site}/runs/r-09`)
  const ways = page.getByRole('region', { name: 'What would make it clear' })
  await expect(ways.getByRole('listitem').first()).toContainText('Lay C-0021 from the drawer (2 m) in R-09.')
  await expect(ways).toContainText('costs nothing')
  await expect(ways).toContainText('69 EUR')
  // what gets worse is said beside what gets better
  await expect(ways.getByRole('listitem').filter({ hasText: 'C-0022' })).toContainText('Worse elsewhere')
  await ways.getByRole('button', { name: /Buy Type-C active/ }).click()
  await expect(page.getByText('It is done, as it was shown.')).toBeVisible()
  await expect(verdictOf(page)).toHaveText('Clear')
  await expect(page.getByLabel('Cable', { exact: true })).toHaveValue('kind-c-40-active@2')
  await expect(page.getByRole('region', { name: 'Findings' })).toContainText('is yet to be had, for 69 EUR')
  await expect(ways).toHaveCount(0)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(verdictOf(page)).toHaveText('Blocked')
  await expect(page.getByLabel('Cable', { exact: true })).toHaveValue('c-0017')
})

test('what is tried on a run says what it changes against the saved plan, and is put back', async ({ page }) => {
  await open(page, '/sites/saltmarsh/runs/r-15')
  const strip = page.getByRole('region', { name: 'What if' })
  await page.getByRole('slider').fill('5.4')
  await expect(verdictOf(page)).toHaveText('Blocked')
  await expect(strip).toContainText('R-15 Clear to Blocked')
  await expect(page.getByLabel('Route length')).toHaveValue('5.4 m')
  await strip.getByRole('button', { name: 'Reset' }).click()
  await expect(verdictOf(page)).toHaveText('Clear')
  await expect(page.getByLabel('Route length')).toHaveValue('4.4 m')
  // another policy is tried on what the run can bear on, and not kept
  await open(page, '/sites/saltmarsh/runs/r-01')
  await strip.getByRole('combobox').selectOption('with supplied leads only')
  await expect(verdictOf(page)).toHaveText('Blocked')
  await strip.getByRole('button', { name: 'Reset' }).click()
  await expect(verdictOf(page)).toHaveText('Clear')
  // a visitor sits down, a supply gives less
  await open(page, '/sites/saltmarsh/runs/r-09')
  await strip.getByRole('combobox').selectOption('Second instructor laptop')
  await expect(strip).toContainText('chart picture Clear to Blocked')
  await open(page, '/sites/saltmarsh/runs/r-13')
  await expect(verdictOf(page)).toHaveText('Tight')
  await strip.getByRole('combobox').selectOption('Desk charger gives 45 W')
  await expect(verdictOf(page)).toHaveText('Blocked')
})

test('a door of the corridor tells who says so, how far it would carry, and what is behind it, by keys', async ({
  page,
}) => {
  await open(page, '/sites/saltmarsh/needs/log-picture')
  const corridor = page.getByRole('region', { name: 'Corridor of the log picture' })
  await expect(corridor.getByRole('listitem')).toHaveCount(6)
  await corridor.getByRole('button', { name: /C-0017/ }).focus()
  await expect(page.getByText('By the book a lead of this sort carries')).toContainText('USB4 40 Gb/s to 0.5 m')
  await expect(page.getByText('Behind it: Gallery dock')).toBeVisible()
  await page.keyboard.press('Tab')
  await expect(page.getByText(/^Gallery dock passes/)).toContainText('Says its data sheet')
})

test('drawer and catalogue are one list, best first, and their leads stand side by side', async ({ page }) => {
  await open(page, '/sites/saltmarsh/runs/r-09')
  const choices = page.getByRole('region', { name: 'Cables that fit here, best first' })
  const buy = choices.getByRole('listitem').filter({ hasText: 'Type-C active, 40 Gb/s mark, 100 W' })
  // what does it and costs nothing stands before what does it and is to be bought, and both before what does not
  const lines = choices.getByRole('listitem')
  await expect(lines.first()).toContainText('from the drawer')
  await expect(buy).toContainText('to buy, 69 EUR')
  await expect(buy).toContainText('Dearer; it adds nothing here: another part is the limit.')
  await expect(lines.last()).toContainText('Blocked')
  await lines.first().getByLabel('side by side').check()
  await buy.getByLabel('side by side').check()
  const table = page.getByRole('table', { name: 'Side by side' })
  await expect(table.getByRole('row', { name: /Verdict/ })).toContainText('Clear')
  await expect(table.getByRole('row', { name: /Price/ })).toContainText('in the drawer69 EUR')
  await choices.getByRole('button', { name: 'Plan with Type-C active, 40 Gb/s mark, 100 W' }).click()
  await expect(verdictOf(page)).toHaveText('Clear')
})

test('the board groups, orders and narrows by address, and is walked with the arrow keys', async ({ page }) => {
  await open(page, '/sites/saltmarsh')
  const table = page.getByRole('table', { name: 'Runs' })
  await page.getByLabel('Group').selectOption('by dock')
  await expect(table.getByRole('rowheader', { name: /Gallery dock/ })).toContainText('4 runs, 2 not clear')
  await page.getByLabel('Order').selectOption('longest first')
  await expect(page).toHaveURL(/by=dock&sort=length/)
  await page.getByLabel('Order').selectOption('worst first')
  await expect(page).not.toHaveURL(/sort=/)
  await page.getByLabel('Kind of need').selectOption('headset')
  await expect(table.getByRole('link', { name: /^R-/ })).toHaveCount(1)
  await page.getByLabel('Kind of need').selectOption('all kinds')
  const links = table.locator('[data-run-link]')
  await expect(links).toHaveCount(20)
  await links.first().focus()
  await page.keyboard.press('ArrowDown')
  await expect(links.nth(1)).toBeFocused()
  await page.keyboard.press('x')
  await expect(page.getByText('1 chosen')).toBeVisible()
})

test('the best from the drawer for all is shown before it is done, is one change, and one undo takes it back', async ({
  page,
}) => {
  const site = await ownSite(page)
  await open(page, site)
  await page.getByRole('button', { name: 'Best from the drawer for them' }).click()
  const proposal = page.getByRole('region', { name: 'The best from the drawer' })
  await expect(proposal).toContainText('Nothing has been changed yet.')
  await expect(proposal.getByRole('row', { name: /R-09/ })).toContainText('C-0021')
  await proposal.getByRole('button', { name: /it does nothing for/ }).click()
  await expect(proposal.getByRole('table', { name: 'Runs left as they are' })).toContainText('R-16')
  await proposal.getByRole('button', { name: 'Lay 6 leads' }).click()
  await expect(page.getByText('It is done, as it was shown.')).toBeVisible()
  await expect(page.getByRole('link', { name: /clear 18/i })).toBeVisible()
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByRole('link', { name: /clear 12/i })).toBeVisible()
  await open(page, `${site}/history`)
  await expect(page.getByText('laid the best from the drawer in 6 runs').first()).toBeVisible()
})

test('a way out for each run that is not clear is worked out beside the page', async ({ page }) => {
  await open(page, '/sites/saltmarsh?grade=blocked')
  await page.getByRole('button', { name: 'A way out for each' }).click()
  const ways = page.getByRole('table', { name: 'Ways out' })
  await expect(ways.getByRole('row', { name: /R-14/ })).toContainText('Lay C-0012 from the drawer')
  await expect(page.getByRole('region', { name: 'A way out for each' })).toContainText('runs have a way out')
})

test('a proposal that is none, that does not fit, or that comes too late changes nothing', async ({ page }) => {
  const site = await ownSite(page)
  const take = async (proposal: unknown): Promise<string | null> => {
    const answer = await page.request.post(`${site}/take`, {
      form: { proposal: typeof proposal === 'string' ? proposal : JSON.stringify(proposal), base: '1', back: site },
      maxRedirects: 0,
    })
    expect(answer.status()).toBe(302)
    return new URL(answer.headers().location as string, 'http://hallway').searchParams.get('refused')
  }
  const run = (await (await page.request.get(`${site}/plan.json`)).json()).runs.find(
    ({ id }: { id: string }) => id === 'r-09',
  )
  const edit = (value: unknown, base = 1) => ({ list: 'runs', id: 'r-09', base, value })
  const named = (edits: unknown) => ({ name: 'follow advice', about: ['R-09'], edits })
  expect(await take('{"name":')).toBe('none')
  expect(await take({ name: 'delete everything', about: [], edits: [edit(null)] })).toBe('none')
  expect(await take(named([]))).toBe('none')
  expect(await take(named([edit({ ...run, leads: [{ cable: 'none' }] })]))).toBe('unfit')
  // values of any kind, where other runs follow the pathways
  for (const value of [{ id: 'r-09' }, { ...run, route: null }, { ...run, from: 'here' }, [], 'r-09', 9])
    expect(await take(named([edit(value)]))).toBe('unfit')
  expect(await take(named([{ list: 'devices', id: 'helm', base: 1, value: { id: 'helm', ports: {} } }]))).toBe('unfit')
  expect(await take(named([{ list: 'observations', id: 'seen', base: null, value: { id: 'seen' } }]))).toBe('unfit')
  expect(await take(named([edit({ ...run, note: 'first' })]))).toBeNull()
  expect(await take(named([edit({ ...run, note: 'second' })]))).toBe('late')
  const after = (await (await page.request.get(`${site}/plan.json`)).json()).runs
  expect(after.find(({ id }: { id: string }) => id === 'r-09')).toMatchObject({ note: 'first', leads: run.leads })
})

test('one kind of cable is chosen for many runs at once, shown before it is done, and undone as one change', async ({
  page,
}) => {
  const site = await ownSite(page)
  await open(page, site)
  for (const tag of ['R-10', 'R-11']) await page.getByRole('checkbox', { name: `Choose ${tag}` }).check()
  const kinds = page.getByLabel(/^One kind for/)
  const option = kinds.locator('option').filter({ hasText: 'DisplayPort' }).first()
  await kinds.selectOption((await option.getAttribute('value')) as string)
  const panel = page.getByRole('region').filter({ hasText: 'at the shortest length sold' })
  await expect(panel.getByRole('row', { name: /R-10/ })).toBeVisible()
  await panel.getByRole('button', { name: /^Lay \d leads?/ }).click()
  await expect(page.getByText('It is done, as it was shown.')).toBeVisible()
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByText('It is done, as it was shown.')).toHaveCount(0)
})
