import { AxeBuilder } from '@axe-core/playwright'
import type { Page } from '@playwright/test'
import { expect } from './pages'

/** What is there to be pressed and is hard to hit on a phone (WCAG 2.2, target size: 24 px); a box to tick is hit by its label. */
export const tooSmall = (page: Page): Promise<string[]> =>
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

export const DESK = { width: 1280, height: 800 }
export const PHONE = { width: 390, height: 844 }
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
export async function overTheSide(page: Page): Promise<string[]> {
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
export async function wrongOn(page: Page): Promise<string[]> {
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
