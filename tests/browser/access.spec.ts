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
