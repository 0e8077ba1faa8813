import { AxeBuilder } from '@axe-core/playwright'
import type { Page } from '@playwright/test'
import { expect } from './pages'

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

/** How far a page runs off the side. */
async function overTheSide(page: Page): Promise<string[]> {
  const over = await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth)
  return over > 0 ? [`${over} px over the side`] : []
}

/** Words that no person wrote: a value that was not there, or was not put into words. */
async function wordless(page: Page): Promise<string[]> {
  const text = (await page.locator('main').textContent()) ?? ''
  return [...text.matchAll(/.{0,30}(?:\bundefined\b|\bNaN\b|\[object ).{0,30}/g)].map(([found]) => `says: ${found}`)
}

/** Rows and choices beyond these are like those before them. */
const ROWS = 5
/** Looks at the first rows of what is long only, as axe takes its time for each. */
const cutLong = (page: Page): Promise<void> =>
  page.evaluate((rows) => {
    const sheet = new CSSStyleSheet()
    sheet.replaceSync(
      ['tbody > tr', 'ul > li', 'ol > li', 'select option', 'select optgroup', 'dl > div', 'svg > g > g']
        .map((each) => `${each}:nth-child(n + ${rows + 1})`)
        .join(',')
        .concat('{ display: none !important }'),
    )
    document.adoptedStyleSheets = [...document.adoptedStyleSheets, sheet]
  }, ROWS)

/** What may differ by size and by colours; the rest of a page is the same. */
const LOOK_RULES = [
  'aria-hidden-focus',
  'button-name',
  'color-contrast',
  'label',
  'link-in-text-block',
  'link-name',
  'nested-interactive',
  'scrollable-region-focusable',
  'select-name',
  'target-size',
]

/** A look at a page: how large, in which colours, and by which rules; without any, all of them. */
const LOOKS = [
  { size: { width: 1280, height: 800 }, colorScheme: 'light', rules: null },
  { size: { width: 390, height: 844 }, colorScheme: 'dark', rules: LOOK_RULES },
] as const

/** What axe finds serious on a page. Only what is wrong is gathered, and in the page itself, which has no frames of others: that takes half the time. */
async function foundByAxe(page: Page, rules: readonly string[] | null): Promise<string[]> {
  const axe = new AxeBuilder({ page }).setLegacyMode(true)
  const asked = rules
    ? axe.options({ resultTypes: ['violations'], runOnly: { type: 'rule', values: [...rules] } })
    : axe.options({ resultTypes: ['violations'] })
  const { violations } = await asked.analyze()
  return violations.flatMap(({ id, impact, nodes }) =>
    impact === 'serious' || impact === 'critical' ? `${id}: ${nodes.map(({ target }) => target).join(' | ')}` : [],
  )
}

/** What is wrong on a page in both looks at it. */
export async function wrongOn(page: Page): Promise<string[]> {
  const wrong: string[] = []
  const tell = (which: (typeof LOOKS)[number], found: readonly string[]) =>
    wrong.push(...found.map((each) => `${which.colorScheme}, ${which.size.width}: ${each}`))
  const lookAs = async ({ size, colorScheme }: (typeof LOOKS)[number]) => {
    await page.emulateMedia({ colorScheme })
    await expect(page.locator('html')).toHaveClass(new RegExp(colorScheme))
    await page.setViewportSize(size)
  }
  // whole first: a long name may stand in any row
  for (const look of LOOKS) {
    await lookAs(look)
    tell(look, await overTheSide(page))
  }
  tell(LOOKS[1], [...(await tooSmall(page)), ...(await wordless(page))])
  await cutLong(page)
  for (const look of LOOKS.toReversed()) {
    await lookAs(look)
    tell(look, await foundByAxe(page, look.rules))
  }
  return wrong
}
