import { expect, open, test } from '../support/pages'

/** Check values of published sources and of common practice, read off the pages a person reads them from. */
const PICTURES: [string, string][] = [
  // VESA CVT 1.2, reduced blanking v2: pixel clock x 24
  ['1920x1080@60', '3.2 Gb/s'],
  ['2560x1440@60', '5.63 Gb/s'],
  ['3840x2160@60', '12.54 Gb/s'],
  ['3840x2160@120', '25.82 Gb/s'],
  ['5120x2880@60', '22.18 Gb/s'],
  ['7680x4320@60', '49.65 Gb/s'],
]

test('pictures come to what VESA CVT 1.2 says, as they are typed', async ({ page }) => {
  await open(page, '/sites/saltmarsh/needs/chart-picture')
  for (const [mode, rate] of PICTURES) {
    await page.getByLabel('How much').fill(mode)
    await expect(page.locator('form details summary').first()).toContainText(rate)
  }
})

test('the board tells the figures of the published tables and of common practice', async ({ page }) => {
  await open(page, '/sites/saltmarsh')
  const row = (tag: string) => page.getByRole('row').filter({ has: page.getByRole('link', { name: tag }) })
  // CTA-861 VIC 97: 594 MHz x 24 over HDMI 2.0, 600 MHz x 24
  await expect(row('R-05')).toContainText('14.26 Gb/s of 14.4 Gb/s')
  // DisplayPort HBR3 on four lanes after coding
  await expect(row('R-01')).toContainText('12.54 Gb/s of 25.92 Gb/s')
  // common practice: a 96 W laptop on an unmarked lead gets 60 W
  await expect(row('R-13')).toContainText('36 W short, 96 W of 60 W')
  // USB4 40 Gb/s after coding, 40 x 128 / 132
  await expect(row('R-18')).toContainText('20 Gb/s of 38.79 Gb/s')
})

test('a dock holds the steps of the published ladder', async ({ page }) => {
  await open(page, '/sites/saltmarsh/docks/gallery-dock')
  const row = page.getByRole('row', { name: /chart picture/ })
  // Linux thunderbolt driver: of 90 % of 20 Gb/s the best step is 17,280 Mb/s
  await expect(row).toContainText('18 Gb/s')
  await expect(row).toContainText('DisplayPort HBR2 x4, 17.28 Gb/s')
})

test('an enclosure of four PCIe lanes comes to the band that common practice gives', async ({ page }) => {
  await open(page, '/sites/saltmarsh/runs/r-18')
  await expect(page.getByRole('region', { name: 'Findings' })).toContainText(/Expect \d+ MB\/s to \d+ MB\/s/)
})
