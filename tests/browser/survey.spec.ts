import type { Page } from '@playwright/test'
import * as build from '../support/edid-builder'
import { expect, open, ownSite, test, verdictOf } from '../support/pages'

/** Puts one device of a usual sort at a place. */
async function put(page: Page, template: string, name: string, place: string) {
  const form = page.getByText('Put a device here')
  if (!(await page.getByLabel('Begin from').isVisible())) await form.click()
  await page.getByLabel('Begin from').selectOption(template)
  await page.getByLabel('Name', { exact: true }).fill(name)
  await page.getByLabel('Where it stands').selectOption(place)
  await page.getByRole('button', { name: 'Put it into the survey' }).click()
  await expect(page.getByRole('link', { name, exact: true })).toBeVisible()
}

test('a newcomer comes from an empty site to a first verdict, and on to one that is clear', async ({ page }) => {
  await open(page, '/')
  await page.getByText('New site').first().click()
  await page.getByLabel('Name', { exact: true }).fill('Tide office')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { name: 'Runs' })).toBeVisible()
  await page.getByRole('link', { name: 'survey', exact: true }).click()
  await expect(page.getByText('Begin with what stands here')).toBeVisible()

  await page.getByLabel('A new place').fill('Window desk')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('rowheader', { name: /Window desk/ })).toContainText('0 devices')
  await put(page, 'Laptop, two full and two plain sockets', 'Tide laptop', 'Window desk')
  await put(page, '4K display, DisplayPort and HDMI', 'Chart screen', 'Window desk')
  // a device port by port, off its data sheet
  await page.getByText('Put a device here').click()
  await page.getByLabel('Begin from').selectOption('nothing, port by port')
  await page.getByLabel('Name', { exact: true }).fill('Logger')
  await page.getByLabel('Ports, a line each').fill('type-C device 10g takes 4.5W\nwarp core')
  await expect(page.getByText('Line 2: "warp" is no word for a port.')).toBeVisible()
  await page.getByLabel('Ports, a line each').fill('type-C device 10g takes 4.5W')
  await expect(page.getByText('Understood: 1 port')).toBeVisible()
  await page.getByRole('button', { name: 'Put it into the survey' }).click()
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
  await page.getByRole('link', { name: 'State needs' }).click()
  await expect(page.getByRole('textbox', { name: 'How much for Chart screen' })).toHaveValue('3840x2160@60')
  await page.getByRole('button', { name: 'State what is ticked' }).click()
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
  await page.getByLabel('Copies of it').fill('3')
  await page.getByRole('button', { name: 'Copy it' }).click()
  await expect(page.getByText('It stands in the survey.')).toBeVisible()
  await expect(page.getByRole('link', { name: 'Carry-out disk 3' })).toBeVisible()
  await page.getByRole('link', { name: 'Carry-out disk 3' }).click()
  await page.getByRole('button', { name: 'Delete the device' }).click()
  await expect(page.getByText('It is gone from the survey.')).toBeVisible()
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByRole('link', { name: 'Carry-out disk 3' })).toBeVisible()
})

test('a place is renamed and deleted once nothing stands there', async ({ page }) => {
  const site = await ownSite(page)
  await open(page, `${site}/survey`)
  await page.getByLabel('A new place').fill('Chart loft')
  await page.getByRole('button', { name: 'Add the place' }).click()
  await page.getByRole('button', { name: 'Change Chart loft' }).click()
  await page.getByLabel('Name of the place').fill('Upper loft')
  await page.getByRole('button', { name: 'Save the place' }).click()
  await page.getByRole('button', { name: 'Change Upper loft' }).click()
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
  await page.getByRole('button', { name: 'Take what is ticked' }).click()
  await expect(page.getByText('is saved')).toBeVisible()
  // 4K is asked of a display that does not list it
  await open(page, `${site}/needs/chart-picture`)
  await expect(page.getByText('does not list 3840x2160@60').first()).toBeVisible()
  await page.getByRole('button', { name: /made for 2560x1440@59.95/ }).click()
  await page.getByRole('button', { name: /^Save/ }).click()
  await expect(page.getByText('does not list')).toHaveCount(0)
})
