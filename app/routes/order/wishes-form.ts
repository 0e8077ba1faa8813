import { RISKS, type Risk } from '../../../core/order/choices'
import { usualWishes, type Wishes } from '../../../core/order/wishes'
import type { CableKind } from '../../../core/vocabulary/cable'
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

/** What each thing that may go wrong is called in an address. */
export const riskField = (risk: Risk): string => risk.replaceAll(' ', '-')

export type Wished = {
  wishes: Wishes
  spares: number | null
  upgrade: string | null
  /** Kinds that are avoided and bought all the same. */
  allowed: readonly string[]
  problem: string | null
}

/** What is wished, as an address has it. What cannot be read is left out, and said. Kinds that are avoided are not bought unless that is asked for. */
export function readWishes(params: URLSearchParams, kinds: readonly CableKind[]): Wished {
  const problems: string[] = []
  const figure = (name: string, most: number, words: string): number | null => {
    const text = (params.get(name) ?? '').trim().replace(',', '.')
    if (text === '') return null
    const value = Number(text)
    if (/^\d{1,9}(\.\d{1,4})?$/.test(text) && value <= most) return value
    problems.push(`${words} is a figure from 0 to ${most}.`)
    return null
  }
  const price = (name: string, words: string, usual: number): number => figure(name, HIGHEST_PRICE, words) ?? usual
  const days = figure('days', 365, 'The number of days')
  const budget = figure('budget', HIGHEST_PRICE, 'What it may cost')
  const holds = figure('holds', 100, 'The odds that an untried kind holds')
  const spares = params.get('spares') ?? 'tenth'
  const allowed = params.getAll('allow').slice(0, MOST_SAID)
  const avoided = kinds.flatMap(({ id, avoid }) => (avoid && !allowed.includes(id) ? id : []))
  return {
    wishes: {
      ...usualWishes,
      perArticle: price('article', 'What one more article is worth', usualWishes.perArticle),
      perTight: price('tight', 'What a tight run is worth', usualWishes.perTight),
      perJoint: price('joint', 'What a joint is worth', usualWishes.perJoint),
      perRisk: Object.fromEntries(
        RISKS.map((risk) => [risk, price(riskField(risk), 'What a risk is worth', usualWishes.perRisk[risk])]),
      ) as Wishes['perRisk'],
      holds: holds === null ? usualWishes.holds : holds / 100,
      withinDays: days,
      budget,
      withoutKinds: [...new Set([...params.getAll('without').slice(0, MOST_SAID), ...avoided])],
      fixed: params.getAll('keep').slice(0, MOST_SAID),
    },
    spares: SPARES[isSpares(spares) ? spares : 'tenth'].share,
    upgrade: params.get('for') || null,
    allowed,
    problem: problems.length > 0 ? `${[...new Set(problems)].join(' ')} It is left out.` : null,
  }
}
