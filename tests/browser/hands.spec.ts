import { expect, open, ownSite, test } from '../support/pages'

test('what was saved is told for a while with its way back, on any page, and Control+Z goes back further', async ({
  page,
}) => {
  const site = await ownSite(page)
  await open(page, `${site}/survey/gallery-laptop`)
  await page.getByLabel('Name', { exact: true }).fill('Gallery notebook')
  await page.getByRole('button', { name: 'Save the device' }).click()
  await expect(page.getByText('You renamed Gallery laptop to Gallery notebook.')).toBeVisible()
  await page.getByRole('link', { name: /^Match/ }).click()
  await page.getByRole('link', { name: 'R-04', exact: true }).first().click()
  await page.getByLabel('Note').fill('by the door')
  await page.getByRole('button', { name: 'Save the run' }).click()
  await expect(page.getByText('You changed R-04: the note.')).toBeVisible()
  await page.getByRole('button', { name: 'Undo' }).first().click()
  await expect(page.getByLabel('Note')).toHaveValue('')
  await page.getByRole('link', { name: /^Survey/ }).click()
  await page.getByRole('heading', { name: 'Survey' }).click()
  await page.keyboard.press('Control+z')
  await expect(page.getByRole('link', { name: 'Gallery laptop', exact: true })).toBeVisible()
  await page.keyboard.press('Control+Shift+z')
  await expect(page.getByRole('link', { name: 'Gallery notebook', exact: true })).toBeVisible()
  await page.getByRole('link', { name: 'History' }).click()
  await expect(page.getByText('did again: renamed Gallery laptop to Gallery notebook')).toBeVisible()
})

test('keys that are pressed faster than a change is saved count all the same', async ({ page }) => {
  const site = await ownSite(page)
  await open(page, `${site}/runs/r-04`)
  for (const note of ['by the door', 'by the window']) {
    await page.getByLabel('Note').fill(note)
    await page.getByRole('button', { name: 'Save the run' }).click()
    await expect(page.getByText('You changed R-04: the note.')).toBeVisible()
    await page.getByRole('button', { name: 'Hide this' }).click()
  }
  await page.getByRole('heading', { level: 1 }).click()
  for (let presses = 0; presses < 2; presses += 1) await page.keyboard.press('Control+z')
  await expect(page.getByLabel('Note')).toHaveValue('')
})

test('many devices are ticked, moved with a preview, and one undo takes all of it back', async ({ page }) => {
  const site = await ownSite(page)
  await open(page, `${site}/survey`)
  await page.getByRole('link', { name: 'Many at once' }).click()
  await page.getByLabel('What to change').selectOption('Move them to a place')
  await page.getByLabel('To the place').selectOption('Debrief room')
  await page.getByLabel('Only those with').fill('bridge view')
  await page.getByRole('button', { name: 'Tick these 5' }).click()
  const preview = page.getByRole('region', { name: 'What changes' })
  await expect(preview.getByRole('row')).toHaveCount(6)
  await expect(preview).toContainText('the place from Bridge simulator hall to Debrief room')
  await preview.getByRole('button', { name: 'Change 5' }).click()
  await expect(page.getByText('It is done, as one change.')).toBeVisible()
  await page.getByRole('button', { name: 'Undo' }).first().click()
  await expect(page.getByText('It is done, as one change.')).toHaveCount(0)
  await open(page, `${site}/history`)
  await expect(page.getByText(/undid: moved to Debrief room/)).toBeVisible()
})

test('what was typed of a length stays what it was when the unit is switched', async ({ page }) => {
  const site = await ownSite(page)
  await open(page, `${site}/runs/r-04`)
  await page.getByLabel('Route length').fill('3.5')
  await page.getByRole('button', { name: 'Show feet' }).click()
  await expect(page.getByRole('button', { name: 'Show metres' })).toBeVisible()
  await expect(page.getByLabel('Route length')).toHaveValue('3.5 m')
  await expect(page.getByText('11 ft 6 in').first()).toBeVisible()
})

test('what was typed and not saved is still there when the page is opened anew, and gone once it was saved', async ({
  page,
}) => {
  const site = await ownSite(page)
  await open(page, `${site}/runs/r-04`)
  // browsers ask only those who have touched the page
  await page.getByLabel('Note').click()
  await page.getByLabel('Note').fill('behind the door')
  await page.getByLabel('Route length').fill('3.5 m')
  const asked: string[] = []
  page.on('dialog', async (dialog) => {
    asked.push(dialog.type())
    await dialog.accept()
  })
  await page.reload()
  await page.waitForSelector('html[data-ready]')
  expect(asked).toEqual(['beforeunload'])
  await expect(page.getByLabel('Note')).toHaveValue('behind the door')
  await expect(page.getByLabel('Route length')).toHaveValue('3.5 m')
  await page.getByRole('button', { name: 'Save the run' }).click()
  await expect(page.getByText('R-04 is saved.')).toBeVisible()
  await page.getByRole('button', { name: 'Undo' }).first().click()
  await expect(page.getByLabel('Note')).toHaveValue('')
  await page.reload()
  await page.waitForSelector('html[data-ready]')
  await expect(page.getByLabel('Note')).toHaveValue('')
  // nothing was left unsaved
  expect(asked).toHaveLength(1)
})

test('a page with something unsaved on it asks before it is left for another one', async ({ page }) => {
  const site = await ownSite(page)
  await open(page, `${site}/runs/r-04`)
  await page.getByLabel('Note').fill('behind the door')
  const question = page.getByRole('dialog', { name: 'What you typed here is not saved.' })
  const board = page.getByRole('link', { name: /^Match/ })
  await board.click()
  await question.getByRole('button', { name: 'Stay here' }).click()
  await expect(question).toBeHidden()
  await expect(page.getByLabel('Note')).toHaveValue('behind the door')
  // the switch of the unit is no leaving
  await page.getByRole('button', { name: 'Show feet' }).click()
  await expect(page.getByRole('button', { name: 'Show metres' })).toBeVisible()
  await expect(page.getByLabel('Note')).toHaveValue('behind the door')
  await board.click()
  await expect(question).toBeVisible()
  await page.keyboard.press('Escape')
  await expect(page).toHaveURL(/runs\/r-04/)
  await page.getByRole('button', { name: 'Save the run' }).click()
  await expect(page.getByText('R-04 is saved.')).toBeVisible()
  await board.click()
  await expect(page).toHaveURL(site)
  await page.goBack()
  await page.getByLabel('Note').fill('gone')
  await board.click()
  await question.getByRole('button', { name: 'Leave without saving' }).click()
  await expect(page).toHaveURL(site)
})

test('one more like a run is begun from it: a free port, the same sort of lead, the same needs', async ({ page }) => {
  const site = await ownSite(page)
  await open(page, `${site}/runs/r-01`)
  await page.getByRole('link', { name: 'More like this' }).click()
  await expect(page.getByLabel('Route length')).toHaveValue('12.5 m')
  await expect(page.getByRole('group', { name: 'Need 1' }).getByLabel('How much')).toHaveValue('3840x2160@60')
})

test('the first page says how each site stands and what was done there last', async ({ page }) => {
  const site = await ownSite(page)
  await open(page, '/')
  const row = page.getByRole('row').filter({ has: page.locator(`a[href="${site}"]`) })
  await expect(row.getByText('Blocked', { exact: true })).toBeVisible()
  await expect(row).toContainText('needs not clear')
  await expect(row).toContainText('created the site')
})

/**
 * A newcomer's job: two desks with a laptop, a dock, a display and a disk each, their six runs, what must get through, and a list of cables. Before places,
 * devices and needs came in by lines it took 24 fields and 16 presses for the runs, and 37 fields for the devices. Half of that is the most it may take.
 */
test('a newcomer enters two desks, their runs, needs and a drawer in at most half the steps it once took', async ({
  page,
}) => {
  page.setDefaultTimeout(40_000)
  const count = { fields: 0, presses: 0 }
  const fill = async (label: string | RegExp, text: string) => {
    count.fields += 1
    await page.getByLabel(label).first().fill(text)
  }
  const choose = async (label: string, option: RegExp) => {
    count.fields += 1
    const field = page.getByLabel(label, { exact: true })
    await expect(field.locator('option').filter({ hasText: option }).first()).toBeAttached()
    const words = await field.locator('option').allTextContents()
    await field.selectOption({ label: words.find((each) => option.test(each)) ?? '' })
  }
  const press = async (role: 'button' | 'link', name: string | RegExp) => {
    count.presses += 1
    await page.getByRole(role, { name }).first().click()
  }
  await open(page, '/')
  await fill('Name', 'Harbour office')
  await press('button', 'Create the site')
  await press('button', 'Add the ready catalogue')
  await expect(page.getByRole('link', { name: 'Look at it' })).toBeVisible()
  await press('link', 'Import a list')
  await fill(
    'or paste it here',
    'Plug A\tPlug B\tLen\tSpeed\nUSB-C\tUSB-C\t0.8 m\tTB4\nDP\tDP\t2 m\tDP 1.4\nusbc\tusb c\t1 m\t10G',
  )
  await press('button', /Add 3 cables|Import/)
  await expect(page.getByText('C-0003').first()).toBeVisible()
  await press('link', /^Survey/)
  await fill(
    'Places and devices, a line each',
    'Desk 1:\nDesk 1 laptop\nDesk 1 dock; tunnel dock\nDesk 1 display\nDesk 1 disk; usb solid-state',
  )
  await press('button', 'Add these')
  await expect(page.getByText(/^Added Desk 1 laptop/)).toBeVisible()
  await press('button', 'Add these needs')
  await expect(page.getByRole('link', { name: /^Needs/ })).toContainText('3')
  const run = async (from: RegExp, to: RegExp, length: string) => {
    await press('link', /^Match/)
    await press('link', 'New run')
    await choose('Host port', from)
    await choose('Device port', to)
    await fill('Route length', length)
    await press('button', 'Lay the run')
    await expect(page.getByText(/is saved\./)).toBeVisible()
  }
  await run(/Desk 1 laptop: left/, /Desk 1 dock: host/, '0.6 m')
  await run(/Desk 1 dock: DisplayPort 1/, /Desk 1 display: DisplayPort/, '1.5 m')
  await run(/Desk 1 dock: C/, /Desk 1 disk/, '0.8 m')
  await press('link', /^Match/)
  await press('button', /Best from the drawer/)
  await press('button', /^(Do it|Lay)/)
  await press('link', /^Survey/)
  await press('link', /^Copy/)
  await fill('Copies', '1')
  await press('button', 'Copy the place')
  await press('link', /^Match/)
  await expect(page.getByRole('link', { name: 'R-06' })).toBeVisible()
  const total = count.fields + count.presses
  expect(total, JSON.stringify(count)).toBeLessThanOrEqual((24 + 16 + 37) / 2)
})
