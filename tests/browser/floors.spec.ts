import { expect, imported, open, ownSite, test, verdictOf } from '../support/pages'

const joint = (name: string) => new RegExp(`^${name}`)

test('a place is moved by keys: its run becomes longer and its lead too short at once; undo and redo go back and forth', async ({
  page,
}) => {
  const site = await ownSite(page)
  await page.clock.install()
  await open(page, `${site}/floors/ground`)
  const ceiling = page.getByRole('button', { name: joint('Deck bay ceiling point') })
  await ceiling.focus()
  // a move ends once the keys have rested, and here they do not
  await page.clock.pauseAt(Date.now() + 10_000)
  await page.keyboard.press('Shift+ArrowRight')
  await page.keyboard.press('Shift+ArrowRight')
  await expect(page.getByRole('status').filter({ hasText: '26 m right' })).toBeVisible()
  // told while it is still being moved
  await page.clock.runFor(200)
  await expect(page.getByText('R-16 10.5 m → 12.5 m')).toBeVisible()
  await page.keyboard.press('Enter')
  await page.clock.resume()
  await expect(page).toHaveURL(/did=/)
  await page.getByRole('link', { name: 'all floors' }).click()
  const row = page.getByRole('row', { name: /R-16/ })
  await expect(row).toContainText('Deck bay ceiling way 10.1 m')
  await expect(row).toContainText('12.5 m')
  await page.getByRole('link', { name: 'R-16' }).click()
  await expect(verdictOf(page)).toHaveText('Blocked')
  await expect(page.getByText('12 m of lead does not span a route of 12.5 m.').first()).toBeVisible()

  await open(page, `${site}/floors/ground`)
  await expect(page.getByRole('button', { name: 'Undo' })).toBeDisabled()
  await ceiling.focus()
  await page.keyboard.press('Shift+ArrowLeft')
  await expect(page).toHaveURL(/did=/)
  await expect(ceiling).toHaveAccessibleName(/25 m right/)
  // the way back is there once the page knows what was saved
  await expect(page.getByRole('button', { name: 'Undo' })).toBeEnabled()
  await page.keyboard.press('Control+z')
  await expect(ceiling).toHaveAccessibleName(/26 m right/)
  await expect(page.getByRole('button', { name: 'Redo' })).toBeEnabled()
  await page.keyboard.press('Control+Shift+z')
  await expect(ceiling).toHaveAccessibleName(/25 m right/)
})

test('keys pressed on a floor before the page was ready wait for it', async ({ page }) => {
  const site = await ownSite(page)
  let pressed = () => {}
  const untilPressed = new Promise<void>((done) => {
    pressed = done
  })
  await page.route(/\/copy\?/, async (route) => {
    await untilPressed
    await route.continue()
  })
  await page.goto(`${site}/floors/ground`)
  await page.getByRole('button', { name: joint('Deck bay ceiling point') }).focus()
  // the page's own scripts are there, and the copy of the site is not
  await page.waitForLoadState('load')
  await page.keyboard.press('Shift+ArrowRight')
  await page.keyboard.press('Shift+ArrowRight')
  pressed()
  await page.waitForSelector('html[data-ready]')
  await expect(page).toHaveURL(/did=/)
  await expect(page.getByRole('button', { name: joint('Deck bay ceiling point') })).toHaveAccessibleName(/26 m right/)
})

test('a spot is dragged with all that meets there, and what is let go on a pathway joins it', async ({ page }) => {
  const site = await ownSite(page)
  await open(page, `${site}/floors/ground`)
  const bridge = page.getByRole('button', { name: joint('Bridge simulator hall') })
  const box = await bridge.locator('rect').boundingBox()
  const from = { x: (box?.x ?? 0) + (box?.width ?? 0) / 2, y: (box?.y ?? 0) + (box?.height ?? 0) / 2 }
  await page.mouse.move(from.x, from.y)
  await page.mouse.down()
  await page.mouse.move(from.x - 30, from.y + 5, { steps: 4 })
  await page.mouse.move(from.x - 60, from.y, { steps: 4 })
  await expect(page.getByText(/R-07 31 m → 3\d/)).toBeVisible()
  await page.mouse.up()
  await expect(page).toHaveURL(/did=/)
  const plan = await (await page.request.get(`${site}/plan.json`)).json()
  const place = plan.places.find(({ id }: { id: string }) => id === 'bridge-hall')
  const conduit = plan.pathways.find(({ id }: { id: string }) => id === 'wheelhouse-conduit')
  expect(place.at.x).toBeLessThan(11)
  expect(conduit.points.at(-1)).toMatchObject({ x: place.at.x, y: place.at.y, height: 2.6 })
  const run = plan.runs.find(({ id }: { id: string }) => id === 'r-07')
  expect(run.route.length).toBeCloseTo(31 + (12.1 - place.at.x), 3)
})

test('a pathway is laid by hand from a pathway to a place: the run between them finds its way; how full it is follows', async ({
  page,
}) => {
  const site = await ownSite(page)
  await open(page, `${site}/floors/ground`)
  await page.getByRole('button', { name: 'Lay a pathway' }).click()
  await page.getByRole('button', { name: joint('Deck bay ceiling way:') }).press('Enter')
  await page.getByRole('button', { name: joint('Debrief room') }).press('Enter')
  await expect(page.getByLabel('Points, a line each')).toHaveValue('20, 9.1, 2.6\n22, 14, 2.6')
  await page.getByLabel('Name', { exact: true }).first().fill('Debrief tray')
  await page.getByLabel('Inner diameter, mm').fill('9')
  await page.getByRole('button', { name: 'Lay the pathway' }).click()
  await expect(page.getByRole('row', { name: /Debrief tray/ })).toContainText('0 %')
  // a run of typed length between the two may follow now
  const plan = await (await page.request.get(`${site}/plan.json`)).json()
  plan.runs.find(({ id }: { id: string }) => id === 'r-17').to = { device: 'projector', port: 'hdmi' }
  const other = await imported(page.request, Buffer.from(JSON.stringify(plan)))
  await open(page, `${other}/floors`)
  await expect(page.getByText('runs have both ends on the pathways')).toBeVisible()
  await page.getByRole('button', { name: 'Let them all follow' }).click()
  await expect(page.getByText('It is done')).toBeVisible()
  await expect(page.getByRole('row', { name: /R-17/ })).toContainText('Debrief tray')
  await open(page, `${other}/floors/ground`)
  await expect(page.getByRole('row', { name: /Debrief tray/ })).toContainText('lead of unknown thickness')
})

test('what is no drawing is refused in words, and a drawing is scaled by something whose length is known', async ({
  page,
}) => {
  const site = await ownSite(page)
  await open(page, `${site}/floors/upper`)
  await page.getByText('The floor and its drawing').click()
  const upload = async (name: string, text: string) => {
    await page
      .getByLabel(/drawing \(PNG|Replace the drawing/)
      .setInputFiles({ name, mimeType: 'image/png', buffer: Buffer.from(text) })
    await page.getByRole('button', { name: 'Add the drawing' }).click()
  }
  await upload('plan.png', 'not a picture at all')
  await expect(page.getByRole('alert')).toContainText('neither a PNG, a JPEG, a WebP nor an SVG')
  await upload(
    'plan.svg',
    '<svg xmlns="http://www.w3.org/2000/svg" width="800" height="400"><script>alert(1)</script><image href="http://elsewhere.example/x.png"/><path d="M0 0h800" onclick="alert(2)"/></svg>',
  )
  await expect(page.getByRole('button', { name: 'Scale the drawing' })).toBeVisible()
  const plan = await (await page.request.get(`${site}/plan.json`)).json()
  const { drawing } = plan.floors.find(({ id }: { id: string }) => id === 'upper')
  const file = await page.request.get(`${site}/files/${drawing.file}`)
  expect(await file.text()).not.toMatch(/script|elsewhere|onclick/)
  expect(file.headers()).toMatchObject({
    'content-type': 'image/svg+xml',
    'x-content-type-options': 'nosniff',
    'content-security-policy': expect.stringContaining('sandbox'),
  })

  await page.getByRole('button', { name: 'Scale the drawing' }).click()
  const map = await page.getByRole('group', { name: /drawn to scale/ }).boundingBox()
  const at = { x: (map?.x ?? 0) + (map?.width ?? 0) / 2, y: (map?.y ?? 0) + (map?.height ?? 0) / 2 }
  await page.mouse.click(at.x - 100, at.y + 40)
  await page.mouse.click(at.x + 100, at.y + 40)
  await page.getByLabel('It is so long, m').fill('10')
  await page.getByRole('button', { name: 'Scale by it' }).click()
  const scale = async () =>
    (await (await page.request.get(`${site}/plan.json`)).json()).floors[1].drawing.metresPerPixel
  await expect.poll(scale).not.toBe(drawing.metresPerPixel)

  // and leaves with the site: the archive comes back as a site of its own, with the drawing
  const archive = await (await page.request.get(`${site}/plan.zip`)).body()
  const copy = await imported(page.request, archive)
  expect((await page.request.get(`${copy}/files/${drawing.file}`)).status()).toBe(200)
})
