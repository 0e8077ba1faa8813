import sharp from 'sharp'
import { expect, open, ownSite, test } from '../support/pages'

test('a walk on a phone: what is read is ticked, what is measured is typed, a photo is kept upright and without where it was taken', async ({
  page,
}) => {
  await page.setViewportSize({ width: 390, height: 844 })
  const site = await ownSite(page)
  await open(page, `${site}/walk`)
  const before = await page.getByRole('progressbar').getAttribute('value')
  const stop = page.getByRole('listitem').filter({ has: page.getByRole('heading', { name: /Instructor gallery/ }) })
  await stop.getByRole('checkbox', { name: /Gallery dock/ }).check()
  await stop.getByRole('checkbox', { name: 'R-09 measured' }).check()
  await stop.getByLabel('Gallery laptop to Gallery dock').fill('down 0.7, desk 0.9')
  await stop.getByRole('button', { name: 'I was here' }).click()
  await expect(page.getByText('It is done')).toBeVisible()
  expect(Number(await page.getByRole('progressbar').getAttribute('value'))).toBe(Number(before) + 3)
  const plan = await (await page.request.get(`${site}/plan.json`)).json()
  const run = plan.runs.find(({ id }: { id: string }) => id === 'r-09')
  expect(run.route).toMatchObject({ length: 1.6, legs: [{ by: 'down' }, { by: 'desk' }] })
  expect(run.route.seen).toMatch(/^\d{4}-\d\d-\d\d$/)

  // lying on its side as a phone holds it, with what a phone writes beside it
  const photo = await sharp({ create: { width: 300, height: 200, channels: 3, background: '#886644' } })
    .jpeg()
    .withExif({ IFD0: { Orientation: '6', Artist: 'someone' }, IFD3: { GPSLatitudeRef: 'N' } })
    .withMetadata({ orientation: 6 })
    .toBuffer()
  await stop
    .getByLabel('A photo of Instructor gallery')
    .setInputFiles({ name: 'a.jpg', mimeType: 'image/jpeg', buffer: photo })
  await stop.getByRole('button', { name: 'Keep it with the place' }).click()
  const shown = page.getByRole('img', { name: 'Photo 1 of Instructor gallery' })
  await expect(shown).toBeVisible()
  const kept = await (await page.request.get((await shown.getAttribute('src')) as string)).body()
  const { width, height, exif } = await sharp(kept).metadata()
  expect([width, height, exif]).toEqual([200, 300, undefined])
  await stop.getByLabel('A photo of Instructor gallery').setInputFiles({
    name: 'b.jpg',
    mimeType: 'image/jpeg',
    buffer: photo.subarray(0, photo.length / 2),
  })
  await stop.getByRole('button', { name: 'Keep it with the place' }).click()
  await expect(page.getByRole('alert')).toContainText('damaged or cut short')
  await stop.getByRole('button', { name: 'Take photo 1' }).click()
  await expect(shown).toHaveCount(0)
})

test('a table goes out, and comes in as one change; rows that cannot be read are told', async ({ page }) => {
  const site = await ownSite(page)
  const file = await page.request.get(`${site}/tables/places.csv`)
  expect(await file.text()).toContain('Kit store and rack')
  await open(page, `${site}/tables`)
  const upload = (text: string) =>
    page
      .getByLabel('Table (.xlsx or CSV)')
      .setInputFiles({ name: 't.csv', mimeType: 'text/csv', buffer: Buffer.from(text) })
  await page.getByLabel('A table of').selectOption('devices')
  await upload('name,kind,place\nSpare screen,display,Debrief room\nOdd thing,spaceship,\n')
  await page.getByRole('button', { name: 'Preview' }).click()
  await expect(page.getByRole('row', { name: /spaceship/ })).toContainText('kind: one of')
  await page.getByRole('button', { name: 'Import', exact: true }).click()
  await expect(page.getByRole('alert')).toContainText('Nothing was imported')
  await page.getByRole('button', { name: 'Import the one good row' }).click()
  await expect(page.getByText('It is done')).toBeVisible()
  await open(page, `${site}/survey`)
  await expect(page.getByRole('link', { name: 'Spare screen' })).toBeVisible()
  await open(page, `${site}/history`)
  await expect(page.getByText('imported Spare screen from a table')).toBeVisible()
})
