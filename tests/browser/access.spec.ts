import { AxeBuilder } from '@axe-core/playwright'
import type { Page } from '@playwright/test'
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
/** What is there to be pressed and is hard to hit on a phone (WCAG 2.2, target size: 24 px); a box to tick is hit by its label. */
const tooSmall = (page: Page): Promise<string[]> =>
  page.evaluate(() =>
    [...document.querySelectorAll<HTMLElement>('button, select, input:not([type=hidden]), summary')]
      .filter((each) => each.checkVisibility({ visibilityProperty: true }) && !each.closest('svg'))
      .flatMap((each) => {
        const { width, height } = (each.closest('label') ?? each).getBoundingClientRect()
        const small = width > 1 && (width < 23.5 || height < 23.5)
        const name = each.getAttribute('name') ?? each.textContent?.slice(0, 30)
        return small ? `${each.tagName} ${name} ${Math.round(width)}x${Math.round(height)}` : []
      }),
  )

// each look goes through the whole page: long lists of choices take their time
test.setTimeout(120_000)

const DESK = { width: 1280, height: 800 }
const PHONE = { width: 390, height: 844 }
/** A look at a page: how large, and in which colours. Colours do not depend on the size, so each size is looked at in one of both. */
type Look = { size: typeof DESK; colorScheme: 'light' | 'dark' }
const LOOKS: readonly Look[] = [
  { size: DESK, colorScheme: 'light' },
  { size: PHONE, colorScheme: 'dark' },
]

/** Only what is wrong is gathered, and in the page itself, which has no frames of others: that takes half the time. */
const axeOn = (page: Page): AxeBuilder =>
  new AxeBuilder({ page }).options({ resultTypes: ['violations'] }).setLegacyMode(true)

/** How far a page runs off the side. */
async function overTheSide(page: Page): Promise<string[]> {
  const over = await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth)
  return over > 0 ? [`${over} px over the side`] : []
}

/** What axe finds serious on a page. */
async function foundByAxe(page: Page): Promise<string[]> {
  const { violations } = await axeOn(page).analyze()
  return violations.flatMap(({ id, impact, nodes }) =>
    impact === 'serious' || impact === 'critical' ? `${id}: ${nodes.map(({ target }) => target).join(' | ')}` : [],
  )
}

/** What is wrong on a page in both looks at it. */
async function wrongOn(page: Page): Promise<string[]> {
  const wrong: string[] = []
  for (const { size, colorScheme } of LOOKS) {
    await page.emulateMedia({ colorScheme })
    await expect(page.locator('html')).toHaveClass(new RegExp(colorScheme))
    await page.setViewportSize(size)
    const found = [...(await foundByAxe(page)), ...(await overTheSide(page))]
    wrong.push(...found.map((each) => `${colorScheme}, ${size.width}: ${each}`))
  }
  return wrong
}

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
