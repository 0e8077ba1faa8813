import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import type { Page } from '@playwright/test'
import type axe from 'axe-core'
import { expect } from './pages'

declare global {
  interface Window {
    axe: typeof axe
  }
}

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
  const text = await page.locator('main').innerText()
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

const AXE = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8')
/** Puts axe into a page, which has no frames of others. */
const bringAxe = (page: Page): Promise<void> => page.evaluate(AXE)

/**
 * Of all text that looks alike, in the same colours, size and weight on the same ground, the first is measured: contrast is four fifths of what axe takes, and is
 * the same for each.
 */
const measureEachLookOnce = (page: Page): Promise<void> =>
  page.evaluate(() => {
    const grounds = new WeakMap<Element, string>()
    const groundOf = (element: Element): string => {
      const known = grounds.get(element)
      if (known !== undefined) return known
      const { backgroundColor, backgroundImage, opacity } = getComputedStyle(element)
      const behind = element.parentElement ? groundOf(element.parentElement) : ''
      const own = `${backgroundColor} ${backgroundImage} ${opacity}`
      const ground = own === 'rgba(0, 0, 0, 0) none 1' ? behind : `${own} on ${behind}`
      grounds.set(element, ground)
      return ground
    }
    const hasText = (element: Element): boolean =>
      [...element.childNodes].some((node) => node.nodeType === Node.TEXT_NODE && node.textContent?.trim()) ||
      element.matches('input, select, textarea')
    const seen = new Set<string>()
    for (const element of document.querySelectorAll<HTMLElement>('body *')) {
      delete element.dataset.measured
      if (!hasText(element) || !element.checkVisibility({ visibilityProperty: true })) continue
      const { color, fontSize, fontWeight } = getComputedStyle(element)
      const look = [element.tagName, color, fontSize, fontWeight, groundOf(element)].join(' ')
      if (!seen.has(look)) element.dataset.measured = ''
      seen.add(look)
    }
    window.axe.configure({ rules: [{ id: 'color-contrast', selector: '[data-measured]' }] })
  })

/** What axe finds serious by some of its rules, or by all. */
async function foundBy(page: Page, rules: readonly string[] | null): Promise<string[]> {
  await measureEachLookOnce(page)
  return page.evaluate(
    async (values) => {
      const { violations } = await window.axe.run(document, {
        resultTypes: ['violations'],
        iframes: false,
        ...(values ? { runOnly: { type: 'rule', values } } : {}),
      })
      return violations.flatMap(({ id, impact, nodes }) =>
        impact === 'serious' || impact === 'critical' ? `${id}: ${nodes.map(({ target }) => target).join(' | ')}` : [],
      )
    },
    rules && [...rules],
  )
}

/** What axe finds serious on a page as it is shown. */
export async function foundByAxe(page: Page): Promise<string[]> {
  await bringAxe(page)
  return foundBy(page, null)
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
  await bringAxe(page)
  for (const look of LOOKS.toReversed()) {
    await lookAs(look)
    tell(look, await foundBy(page, look.rules))
  }
  return wrong
}
