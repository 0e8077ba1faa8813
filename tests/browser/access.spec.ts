import { AxeBuilder } from '@axe-core/playwright'
import { expect, open, test } from '../support/pages'

const PAGES = [
  '/',
  '/import',
  '/sites/saltmarsh',
  '/sites/saltmarsh/needs',
  '/sites/saltmarsh/policy',
  '/sites/saltmarsh/runs/new',
  '/sites/saltmarsh/runs/r-09',
  '/nowhere',
]
const SIZES = { desk: { width: 1280, height: 800 }, phone: { width: 390, height: 844 } }

for (const colorScheme of ['light', 'dark'] as const) {
  for (const [size, viewport] of Object.entries(SIZES)) {
    test.describe(`${size}, ${colorScheme}`, () => {
      test.use({ colorScheme, viewport })
      for (const path of PAGES) {
        test(`${path} has no serious finding of axe and does not run off the side`, async ({ page }) => {
          await open(page, path)
          const { violations } = await new AxeBuilder({ page }).analyze()
          const serious = violations.filter(({ impact }) => impact === 'serious' || impact === 'critical')
          expect(serious.map(({ id, nodes }) => `${id}: ${nodes.map((node) => node.target).join(' | ')}`)).toEqual([])
          expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(viewport.width)
        })
      }
    })
  }
}

test('the whole job is done with the keyboard', async ({ page }) => {
  await open(page, '/sites/saltmarsh/runs/r-13')
  await page.getByLabel('Cable', { exact: true }).focus()
  await page.keyboard.type('C-0036')
  await expect(page.locator('[aria-live=polite]')).toHaveText('Clear')
})
