import { AxeBuilder } from '@axe-core/playwright'
import { expect, open, test, verdictOf } from '../support/pages'

const PAGES = [
  '/',
  '/import',
  '/sites/saltmarsh',
  '/sites/saltmarsh/survey',
  '/sites/saltmarsh/survey/gallery-dock',
  '/sites/saltmarsh/floors',
  '/sites/saltmarsh/floors/ground?run=r-07&pathway=wheelhouse-conduit',
  '/sites/saltmarsh/walk',
  '/sites/saltmarsh/tables',
  '/sites/saltmarsh/needs',
  '/sites/saltmarsh/needs/new?host=gallery-laptop',
  '/sites/saltmarsh/needs/log-picture',
  '/sites/saltmarsh/visitors',
  '/sites/saltmarsh/growth',
  '/sites/saltmarsh/docks/gallery-dock',
  '/sites/saltmarsh/reach',
  '/sites/saltmarsh/verdicts',
  '/sites/saltmarsh/find?q=gallery',
  '/words',
  '/sites/saltmarsh/policy',
  '/sites/saltmarsh/runs/new',
  '/sites/saltmarsh/runs/r-09',
  '/sites/saltmarsh/drawer?job=40+Gb/s',
  '/sites/saltmarsh/drawer/add',
  '/sites/saltmarsh/drawer/import',
  '/sites/saltmarsh/drawer/chip',
  '/sites/saltmarsh/drawer/tags?cables=c-0021',
  '/sites/saltmarsh/drawer/catalogue',
  '/sites/saltmarsh/drawer/sessions',
  '/sites/saltmarsh/drawer/sessions/new?cables=c-0021',
  '/sites/saltmarsh/drawer/sessions/gallery-drawer',
  '/sites/saltmarsh/cables/c-0056',
  '/nowhere',
]
const SIZES = [
  { width: 1280, height: 800 },
  { width: 390, height: 844 },
]

// four looks at a page, each gone through whole: long lists of choices take their time
test.setTimeout(120_000)

for (const path of PAGES) {
  test(`${path} has no serious finding of axe and does not run off the side, on desk and phone, light and dark`, async ({
    page,
  }) => {
    await open(page, path)
    for (const colorScheme of ['light', 'dark'] as const) {
      await page.emulateMedia({ colorScheme })
      await expect(page.locator('html')).toHaveClass(new RegExp(colorScheme))
      for (const size of SIZES) {
        await page.setViewportSize(size)
        const { violations } = await new AxeBuilder({ page }).analyze()
        const serious = violations.filter(({ impact }) => impact === 'serious' || impact === 'critical')
        const found = serious.map(({ id, nodes }) => `${id}: ${nodes.map((node) => node.target).join(' | ')}`)
        expect(found, `${colorScheme}, ${size.width}`).toEqual([])
        expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(size.width)
      }
    }
  })
}

test('the whole job is done with the keyboard', async ({ page }) => {
  await open(page, '/sites/saltmarsh/runs/r-13')
  await page.getByLabel('Cable', { exact: true }).focus()
  await page.keyboard.type('C-0036')
  await expect(verdictOf(page)).toHaveText('Clear')
})
