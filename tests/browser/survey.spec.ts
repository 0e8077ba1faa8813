import type { Page } from '@playwright/test'
import * as build from '../support/edid-builder'
import { expect, open, ownSite, test, verdictOf } from '../support/pages'

/** Puts one device of a usual sort at a place. */
async function put(page: Page, template: string, name: string, place: string) {
  const form = page.getByText('Add a device')
  if (!(await page.getByLabel('Begin from').isVisible())) await form.click()
  await page.getByLabel('Begin from').selectOption(template)
  await page.getByLabel('Name', { exact: true }).fill(name)
  await page.getByLabel('Where it stands').selectOption(place)
  await page.getByRole('button', { name: 'Add to the survey' }).click()
  await expect(page.getByRole('link', { name, exact: true })).toBeVisible()
}

test('a newcomer comes from an empty site to a first verdict, and on to one that is clear', async ({ page }) => {
  await open(page, '/')
  await page.getByText('New site').first().click()
  await page.getByLabel('Name', { exact: true }).fill('Tide office')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { name: 'Runs' })).toBeVisible()
  await page.getByRole('link', { name: 'Add devices' }).click()
  await expect(page.getByText('Type your places and devices below')).toBeVisible()

  await page.getByLabel('A new place').fill('Window desk')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('rowheader', { name: /Window desk/ })).toContainText('0 devices')
  await put(page, 'Laptop, two full and two plain sockets', 'Tide laptop', 'Window desk')
  await put(page, '4K display, DisplayPort and HDMI', 'Chart screen', 'Window desk')
  // a device port by port, off its data sheet
  // it stays open for the next, at the same place
  await expect(page.getByLabel('Where it stands')).toHaveValue(/window-desk/)
  await page.getByLabel('Begin from').selectOption('nothing, port by port')
  await page.getByLabel('Name', { exact: true }).fill('Logger')
  await page.getByLabel('Ports, a line each').fill('type-C device 10g takes 4.5W\nwarp core')
  await expect(page.getByText('Line 2: "warp" is not a word for a port.')).toBeVisible()
  await page.getByLabel('Ports, a line each').fill('type-C device 10g takes 4.5W')
  await expect(page.getByText('Understood: 1 port')).toBeVisible()
  await page.getByRole('button', { name: 'Add to the survey' }).click()
  await expect(page.getByRole('link', { name: 'Logger', exact: true })).toBeVisible()

  await page.getByRole('link', { name: /^Match/ }).click()
  await page.getByRole('link', { name: 'New run' }).click()
  await page.getByLabel('Host port').selectOption({ label: 'Tide laptop: left (type-C, Thunderbolt 4, picture)' })
  await page.getByLabel('Device port').selectOption({ label: 'Chart screen: DisplayPort (DisplayPort)' })
  await page.getByLabel('Route length').fill('1.5 m')
  await page.getByRole('button', { name: 'Lay the run' }).click()
  await expect(page.getByText('R-01 is saved.')).toBeVisible()
  await expect(verdictOf(page)).toHaveText('Blocked')
  await page.getByRole('link', { name: /^Needs/ }).click()
  await page.getByRole('link', { name: 'Add needs' }).click()
  await expect(page.getByRole('textbox', { name: 'How much for Chart screen' })).toHaveValue('3840x2160@60')
  await page.getByRole('button', { name: 'Add these needs' }).click()
  await page.getByRole('link', { name: 'R-01' }).click()
  // with an empty drawer and an empty catalogue it says what is commonly sold, and takes it into the plan
  await page.getByRole('button', { name: /Do it: Buy type-C to DisplayPort lead, 2 m/ }).click()
  await expect(verdictOf(page)).toHaveText('Clear')
})

test('a device is changed port by port, keeps its runs, is copied with numbers, and goes only when nothing needs it', async ({
  page,
}) => {
  const site = await ownSite(page)
  await open(page, `${site}/survey/gallery-dock`)
  const ports = page.getByLabel('Ports, a line each')
  await ports.fill((await ports.inputValue()).replace('DisplayPort 1:', 'left screen:'))
  await page.getByRole('button', { name: 'Save the device' }).click()
  await expect(page.getByText('Gallery dock is saved.')).toBeVisible()
  await open(page, `${site}/runs/r-10`)
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Gallery dock to Gallery chart display')
  await expect(page.getByText('left screen', { exact: false }).first()).toBeVisible()

  await open(page, `${site}/survey/gallery-dock`)
  await ports.fill('host port: type-c device 10g tb4 gives 96W')
  await page.getByRole('button', { name: 'Save the device' }).click()
  await expect(page.getByRole('alert')).toContainText('ends at a port that is no longer among the lines')
  await expect(ports).toHaveValue('host port: type-c device 10g tb4 gives 96W')
  await page.getByRole('button', { name: 'Delete the device' }).click()
  await expect(page.getByRole('alert')).toContainText('Gallery dock is at an end of run R-09')

  await open(page, `${site}/survey/carry-disk`)
  await page.getByLabel('More like this, how many').fill('3')
  await page.getByRole('button', { name: 'Add them' }).click()
  await expect(page.getByText('Added Carry-out disk 1, Carry-out disk 2, Carry-out disk 3.')).toBeVisible()
  await expect(page.getByRole('link', { name: 'Carry-out disk 3' })).toBeVisible()
  await page.getByRole('link', { name: 'Carry-out disk 3' }).click()
  await page.getByRole('button', { name: 'Delete the device' }).click()
  await expect(page.getByText('Deleted from the survey.')).toBeVisible()
  await page.getByRole('button', { name: 'Undo' }).first().click()
  await expect(page.getByRole('link', { name: 'Carry-out disk 3' })).toBeVisible()
})

test('a place is renamed and deleted once nothing stands there', async ({ page }) => {
  const site = await ownSite(page)
  await open(page, `${site}/survey`)
  await page.getByLabel('A new place').fill('Chart loft')
  await page.getByRole('button', { name: 'Add the place' }).click()
  await page.getByRole('button', { name: 'Edit Chart loft' }).click()
  await page.getByLabel('Name of the place').fill('Upper loft')
  await page.getByRole('button', { name: 'Save the place' }).click()
  await page.getByRole('button', { name: 'Edit Upper loft' }).click()
  await page.getByRole('button', { name: 'Delete the place' }).click()
  await expect(page.getByRole('rowheader', { name: /Upper loft/ })).toHaveCount(0)
})

test('a display is read from its EDID, field by field; its own modes are offered where a picture is stated', async ({
  page,
}) => {
  const site = await ownSite(page)
  await open(page, `${site}/survey/gallery-chart`)
  await page.getByText('Read it from the device').click()
  await page.getByLabel('or its text').fill('no reading at all')
  await page.getByRole('button', { name: 'Read it', exact: true }).click()
  await expect(page.getByRole('alert')).toContainText('Nothing in this is known')
  const edid = build.edid({
    input: 0xb5,
    descriptors: [
      build.detailed({ clock: 24150, width: 2560, hBlank: 160, height: 1440, vBlank: 41 }),
      build.nameOf('Tide chart'),
    ],
  })
  await page.getByLabel('File (EDID, log, JSON, CSV)').setInputFiles({
    name: 'edid',
    mimeType: 'application/octet-stream',
    buffer: Buffer.from(edid),
  })
  await page.getByRole('button', { name: 'Read it', exact: true }).click()
  await expect(page.getByRole('row', { name: /Modes it takes/ })).toContainText('not read yet')
  await page.getByRole('button', { name: 'Save what is ticked' }).click()
  await expect(page.getByText('is saved')).toBeVisible()
  // 4K is asked of a display that does not list it
  await open(page, `${site}/needs/chart-picture`)
  await expect(page.getByText('does not list 3840x2160@60').first()).toBeVisible()
  await page.getByRole('button', { name: /made for 2560x1440@59.95/ }).click()
  await page.getByRole('button', { name: /^Save/ }).click()
  await expect(page.getByText('does not list')).toHaveCount(0)
})

/** Types into a field that the keyboard came to, in place of what stands there. */
async function type(page: Page, label: string | RegExp, text: string) {
  const field = page.getByLabel(label, typeof label === 'string' ? { exact: true } : {}).first()
  await field.focus()
  await page.keyboard.press('Control+a')
  await page.keyboard.type(text)
}
async function press(page: Page, role: 'button' | 'link' | 'checkbox', name: string | RegExp, key = 'Enter') {
  const control = page.getByRole(role, { name, ...(typeof name === 'string' ? { exact: true } : {}) }).first()
  await control.focus()
  await page.keyboard.press(key)
}

test('a room is surveyed from an empty site to a first verdict by keyboard alone: places, devices, a floor, a pathway, a run that finds its way', async ({
  page,
}) => {
  await open(page, '/')
  await page.getByText('New site').first().focus()
  await page.keyboard.press('Enter')
  await type(page, 'Name', 'Lamp room')
  await page.keyboard.press('Enter')
  await press(page, 'link', 'Add devices')
  for (const place of ['Window desk', 'Wall rack']) {
    await type(page, 'A new place', place)
    await page.keyboard.press('Enter')
    await expect(page.getByRole('rowheader', { name: new RegExp(place) })).toBeVisible()
  }
  for (const [template, name, place] of [
    ['Laptop, two full and two plain sockets', 'Lamp laptop', 'Window desk'],
    ['USB solid-state disk', 'Lamp disk', 'Wall rack'],
  ] as const) {
    if (!(await page.getByLabel('Begin from').isVisible())) {
      await page.getByText('Add a device').focus()
      await page.keyboard.press('Enter')
    }
    // a choice is made by typing its first letters
    await page.getByLabel('Begin from').focus()
    await page.keyboard.type(template.slice(0, 24))
    await type(page, 'Name', name)
    await page.getByLabel('Where it stands').focus()
    await page.keyboard.type(place)
    await press(page, 'button', 'Add to the survey')
    await expect(page.getByRole('link', { name, exact: true })).toBeVisible()
  }
  await press(page, 'link', 'Floors and pathways')
  await type(page, 'A new floor', 'Ground')
  await press(page, 'button', 'Add the floor')
  await expect(page.getByRole('heading', { name: 'Ground' })).toBeVisible()
  for (const [right, down] of [
    ['1', '1'],
    ['6', '1'],
  ]) {
    await type(page, 'Right of the corner, m', right as string)
    await type(page, 'Down from it, m', down as string)
    await press(page, 'button', 'Put it here')
    await expect(page).toHaveURL(/did=/)
    await expect(page.getByRole('button', { name: new RegExp(`${right} m right`) })).toBeVisible()
    await page.getByText('Put a place on Ground').focus()
    if (!(await page.getByLabel('Right of the corner, m').isVisible())) await page.keyboard.press('Enter')
  }
  await press(page, 'button', 'Lay a pathway')
  await press(page, 'button', /^Window desk:/)
  await press(page, 'button', /^Wall rack:/)
  await type(page, 'Name', 'Lamp tray')
  await press(page, 'button', 'Lay the pathway')
  await expect(page.getByRole('row', { name: /Lamp tray/ })).toBeVisible()

  await press(page, 'link', /^Match/)
  await press(page, 'link', 'New run')
  await page.getByLabel('Host port').focus()
  await page.keyboard.type('Lamp laptop: left')
  await page.getByLabel('Device port').focus()
  await page.keyboard.type('Lamp disk')
  await type(page, 'Route length', '1 m')
  await press(page, 'checkbox', /shortest route over the pathways/, 'Space')
  await expect(page.getByText('Lamp tray 5 m')).toBeVisible()
  await press(page, 'button', 'Lay the run')
  await expect(page.getByText('R-01 is saved.')).toBeVisible()
  // up 1.9 to the tray, 5 along it, and down again
  await expect(page.getByLabel('Route length')).toHaveValue('8.8 m')
  await press(page, 'link', /^Needs/)
  await press(page, 'link', 'Add needs')
  await press(page, 'button', 'Add these needs')
  await press(page, 'link', 'R-01')
  await expect(verdictOf(page)).toHaveText('Blocked')
  await expect(page.getByText('has no cable yet').first()).toBeVisible()
})

test('a port is put together from fields, and lines are put in another order by keys and by hand', async ({ page }) => {
  const site = await ownSite(page)
  await open(page, `${site}/survey/helm`)
  const lines = page.getByLabel('Ports, a line each')
  const before = await lines.inputValue()
  await page.getByText('or put a port together from fields').click()
  await page.getByLabel('Port name').fill('wall box')
  await page.getByLabel('Connector', { exact: true }).selectOption('hdmi')
  await page.getByLabel('Picture', { exact: true }).selectOption('DisplayPort 1.4')
  await page.getByLabel('Picture', { exact: true }).selectOption('HDMI 2.0')
  await page.getByLabel('Pictures go').selectOption('in')
  await page.getByRole('button', { name: 'Add the port' }).click()
  await expect(lines).toHaveValue(`${before}\nwall box: hdmi 2.0 in`)
  await expect(page.getByRole('row', { name: /wall box/ })).toContainText('in, HDMI')
  await lines.press('Control+End')
  await page.keyboard.press('Alt+ArrowUp')
  await expect(lines).toHaveValue(`wall box: hdmi 2.0 in\n${before}`)
  await page.getByRole('button', { name: 'Move wall box, line 1' }).focus()
  await page.keyboard.press('Space')
  await expect(page.getByText(/wall box was moved over/)).toBeAttached()
  // a press may only bring what comes next into view
  await expect(async () => {
    await page.keyboard.press('ArrowDown')
    const moved = page.getByText(/wall box was moved over droppable area (?!wall box)/)
    await expect(moved).toBeAttached({ timeout: 2000 })
  }).toPass()
  await page.keyboard.press('Space')
  await expect(lines).toHaveValue(`${before}\nwall box: hdmi 2.0 in`)
  await page.getByRole('button', { name: 'Save the device' }).click()
  await expect(page.getByText('Helm panel is saved.')).toBeVisible()
})

test('five thousand ports at once are refused in words, and the page stays alive', async ({ page }) => {
  const site = await ownSite(page)
  await open(page, `${site}/survey/helm`)
  const lines = page.getByLabel('Ports, a line each')
  // as a paste sets it; typed by the browser's own command a text of so many lines takes it minutes by itself
  await lines.evaluate((area, text) => {
    Object.getOwnPropertyDescriptor(HTMLTextAreaElement.prototype, 'value')?.set?.call(area, text)
    area.dispatchEvent(new Event('input', { bubbles: true }))
  }, Array(5000).fill('type-c 10g').join('\n'))
  await expect(page.getByText('Understood: 5000 ports')).toBeVisible()
  await page.getByRole('button', { name: 'Save the device' }).click()
  await expect(page.getByRole('alert')).toContainText('A device has at most 64 ports; these are 5000.')
  expect(
    (await (await page.request.get(`${site}/plan.json`)).json()).devices.find(({ id }: { id: string }) => id === 'helm')
      .ports.length,
  ).toBeLessThan(5)
})

test('a device is asked what fits what it is, keeps what was typed where it is not understood, and a place says its mains', async ({
  page,
}) => {
  const site = await ownSite(page)
  await open(page, `${site}/survey`)
  await put(page, 'Webcam', 'Bridge webcam', 'Mooring deck bay')
  await page.getByRole('link', { name: 'Bridge webcam', exact: true }).click()
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Bridge webcam')
  // its own lead is part of its port
  await expect(page.getByLabel('Ports, a line each')).toHaveValue(/captive-1\.5m/)
  await expect(page.getByLabel('The drive inside')).toHaveCount(0)
  await page.getByLabel('What it is').selectOption('storage')
  await expect(page.getByLabel('The drive inside')).toBeVisible()
  await page.getByLabel('What it is').selectOption('camera')
  await expect(page.getByLabel('The drive inside')).toHaveCount(0)
  await page.getByLabel('How loud it is').fill('rather loud')
  await page.getByRole('button', { name: 'Save the device' }).click()
  await expect(page.getByText('How loud it is: "rather loud" is not a level of sound.')).toBeVisible()
  await page.getByLabel('How loud it is').fill('34 to 52 dB at 1 m')
  await page.getByRole('button', { name: 'Save the device' }).click()
  await expect(page.getByText('Bridge webcam is saved.')).toBeVisible()
  await page.reload()
  await expect(page.getByLabel('How loud it is')).toHaveValue('34 to 52 dB at 1 m')

  await open(page, `${site}/survey`)
  await page.getByRole('button', { name: 'Edit Mooring deck bay' }).click()
  const form = page.locator('form').filter({ has: page.getByRole('button', { name: 'Save the place' }) })
  await form.getByLabel('Mains').selectOption('not known')
  await page.getByRole('button', { name: 'Save the place' }).click()
  await expect(page.getByRole('rowheader', { name: /Mooring deck bay/ })).toContainText('mains not known')
})
