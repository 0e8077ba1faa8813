import { usualWishes, type Wishes } from '../../../core/order/wishes'
import { HIGHEST_PRICE } from '../../../core/vocabulary/fields'

/** How many spares of each article are bought with it. */
export const SPARES = {
  tenth: { words: 'one in ten, at least one', share: 0.1 },
  fifth: { words: 'one in five, at least one', share: 0.2 },
  none: { words: 'none', share: null },
} as const
const isSpares = (name: string): name is keyof typeof SPARES => name in SPARES

/** At most so many choices are kept, and kinds left out, by an address. */
const MOST_SAID = 200

/** What is wished, as an address has it. What cannot be read is left out, and said. */
export function readWishes(params: URLSearchParams): {
  wishes: Wishes
  spares: number | null
  upgrade: string | null
  problem: string | null
} {
  const problems: string[] = []
  const figure = (name: string, most: number, words: string): number | null => {
    const text = (params.get(name) ?? '').trim().replace(',', '.')
    if (text === '') return null
    const value = Number(text)
    if (/^\d{1,9}(\.\d{1,4})?$/.test(text) && value <= most) return value
    problems.push(`${words} is a figure from 0 to ${most}.`)
    return null
  }
  const days = figure('days', 365, 'The number of days')
  const budget = figure('budget', HIGHEST_PRICE, 'What it may cost')
  const article = figure('article', HIGHEST_PRICE, 'What one more article is worth')
  const spares = params.get('spares') ?? 'tenth'
  return {
    wishes: {
      ...usualWishes,
      perArticle: article ?? usualWishes.perArticle,
      withinDays: days,
      budget,
      withoutKinds: params.getAll('without').slice(0, MOST_SAID),
      fixed: params.getAll('keep').slice(0, MOST_SAID),
    },
    spares: SPARES[isSpares(spares) ? spares : 'tenth'].share,
    upgrade: params.get('for') || null,
    problem: problems.length > 0 ? `${problems.join(' ')} It is left out.` : null,
  }
}
