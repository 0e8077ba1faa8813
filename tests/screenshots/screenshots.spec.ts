import { open, test } from '../support/pages'

/** One picture of each main view, from the demo data. */
const views: [string, string, { scheme?: 'light' | 'dark'; phone?: true }?][] = [
  ['sites', '/'],
  ['board', '/sites/saltmarsh'],
  ['run', '/sites/saltmarsh/runs/r-09'],
  ['run-dark', '/sites/saltmarsh/runs/r-17', { scheme: 'dark' }],
  ['run-phone', '/sites/saltmarsh/runs/r-16', { phone: true }],
  ['needs', '/sites/saltmarsh/needs'],
  ['policy', '/sites/saltmarsh/policy'],
  ['import', '/import'],
]

for (const [name, path, { scheme = 'light', phone } = {}] of views) {
  test(name, async ({ page }) => {
    await page.emulateMedia({ colorScheme: scheme })
    await page.setViewportSize(phone ? { width: 390, height: 844 } : { width: 1280, height: 800 })
    await open(page, path)
    await page.evaluate(() => document.fonts.ready)
    await page.screenshot({ path: `docs/screenshots/${name}.png` })
  })
}
