import { wrongOn } from '../support/looks'
import { pages, pagesLeftOut } from '../support/page-list'
import { test as base, expect, open, ownSite, verdictOf } from '../support/pages'

// One pass over every page, with names as long as they may be: what axe finds, what runs off the side, what is hard to hit, and what the console complains of.

/** The names of a plan as long as they may be, some without anywhere to break them. */
function longNamed(text: string): string {
  const plan = JSON.parse(text)
  const lengthen = (name: string, at: number): string =>
    (at % 2 === 0
      ? `${name} ${'Deckhauptschaltschrank'.repeat(6)}`
      : `${name} ${'by the window on the quay side '.repeat(5)}`
    )
      .slice(0, 118)
      .trim() +
    (at % 10)
  plan.site.name = lengthen(plan.site.name, 0)
  for (const list of ['devices', 'places', 'floors', 'pathways', 'kinds', 'sessions', 'needs'])
    for (const [at, item] of plan[list].entries()) if (item.name) item.name = lengthen(item.name, at)
  return JSON.stringify(plan)
}

/** A site whose names are long, one for each worker: nothing is changed there. */
const test = base.extend<object, { longSite: string }>({
  longSite: [
    async ({ browser, hallway }, use) => {
      const page = await browser.newPage({ baseURL: hallway.address })
      const site = await ownSite(page, longNamed)
      await page.close()
      await use(site)
    },
    { scope: 'worker', timeout: 120_000 },
  ],
})

test('every page there is is looked at', () => {
  expect(pagesLeftOut()).toEqual([])
})

test('what is wrong on a page is found, and in which look at it', async ({ page }) => {
  await open(page, '/words')
  await page.evaluate(() => {
    const add = (html: string, css: string) => {
      document.querySelector('main')?.insertAdjacentHTML('beforeend', html)
      const sheet = new CSSStyleSheet()
      sheet.replaceSync(css)
      document.adoptedStyleSheets = [...document.adoptedStyleSheets, sheet]
    }
    add(
      '<p class="faint">fine by day</p>',
      '.faint { color: #222 !important; background: #fff } .dark .faint { background: #333 }',
    )
    add('<button type="button" class="tiny">x</button>', '.tiny { width: 9px; height: 9px; min-height: 0; padding: 0 }')
    add('<p class="wide">undefined</p>', '.wide { width: 100em }')
    add('<input class="nameless">', '')
  })
  const wrong = (await wrongOn(page)).join('\n')
  for (const found of [
    /light, 1280: \d+ px over the side/,
    /light, 1280: label: .*\.nameless/,
    /dark, 390: BUTTON x \d+x9/,
    /dark, 390: says: .*undefined/,
    /dark, 390: color-contrast: .*\.faint/,
  ])
    expect(wrong).toMatch(found)
  expect(wrong).not.toMatch(/light, 1280: color-contrast/)
})

for (const path of pages('SITE'))
  test(`${path} is sound, on a desk in light and on a phone in dark`, async ({ page, longSite }) => {
    await open(page, path.replace('SITE', longSite))
    expect(await wrongOn(page)).toEqual([])
  })

test('the whole job is done with the keyboard', async ({ page }) => {
  await open(page, '/sites/saltmarsh/runs/r-13')
  await page.getByLabel('Cable', { exact: true }).focus()
  await page.keyboard.type('C-0036')
  await expect(verdictOf(page)).toHaveText('Clear')
})
