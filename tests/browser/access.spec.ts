import { DESK, overTheSide, PHONE, tooSmall, wrongOn } from '../support/looks'
import { expect, open, ownSite, test, verdictOf } from '../support/pages'

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
  '/sites/saltmarsh/order',
  '/sites/saltmarsh/install',
  '/sites/saltmarsh/prove',
  '/sites/saltmarsh/prove/r-06',
  '/sites/saltmarsh/record',
  '/sites/saltmarsh/compare?one=61+62+63&two=70+71+72',
  '/sites/saltmarsh/test-plan',
  '/sites/saltmarsh/faults',
  '/sites/saltmarsh/faults/search-debrief',
  '/sites/saltmarsh/faults/search-gallery',
  '/sites/saltmarsh/faults/search-debrief/afar',
  '/sites/saltmarsh/runs/r-12/faults',
  '/sites/saltmarsh/handover',
  '/sites/saltmarsh/handover/spring',
  '/sites/saltmarsh/handover/spring/book',
  '/sites/saltmarsh/handover/spring/since',
  '/sites/saltmarsh/handover/spring/ahead?sort=power&size=240+W',
  '/sites/saltmarsh/prove/r-06/readings/demo-readings',
  '/sites/saltmarsh/orders',
  '/sites/saltmarsh/suppliers',
  '/sites/saltmarsh/listing',
  '/sites/saltmarsh/docks/gallery-dock',
  '/sites/saltmarsh/reach',
  '/sites/saltmarsh/verdicts',
  '/sites/saltmarsh/find?q=gallery',
  '/words',
  '/sites/saltmarsh/policy',
  '/sites/saltmarsh/history',
  '/sites/saltmarsh/many?list=devices&do=rename&find=a&replace=b&id=image-a',
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
// each look goes through the whole page: long lists of choices take their time
test.setTimeout(120_000)

for (const path of PAGES) {
  test(`${path} has no serious finding of axe and does not run off the side, on a desk in light and on a phone in dark`, async ({
    page,
  }) => {
    await open(page, path)
    expect(await wrongOn(page)).toEqual([])
    expect(await tooSmall(page)).toEqual([])
  })
}

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

test('whatever the names are, no page of a site runs off the side, on a desk or on a phone', async ({ page }) => {
  test.setTimeout(600_000)
  const site = await ownSite(page, longNamed)
  const wrong: string[] = []
  for (const path of PAGES.filter((each) => each.startsWith('/sites/'))) {
    await open(page, path.replace('/sites/saltmarsh', site))
    for (const size of [DESK, PHONE]) {
      await page.setViewportSize(size)
      wrong.push(...(await overTheSide(page)).map((each) => `${path}, ${size.width}: ${each}`))
    }
  }
  expect(wrong).toEqual([])
})

test('the whole job is done with the keyboard', async ({ page }) => {
  await open(page, '/sites/saltmarsh/runs/r-13')
  await page.getByLabel('Cable', { exact: true }).focus()
  await page.keyboard.type('C-0036')
  await expect(verdictOf(page)).toHaveText('Clear')
})
