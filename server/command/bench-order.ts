import loadHighs from 'highs'
import type { Source } from '../../core/order/articles'
import type { Choice, WantingRun } from '../../core/order/choices'
import { costOf, type Market, type Model, orderModel, usedOnce } from '../../core/order/model'
import { gapOf, type Solved, type Solver } from '../../core/order/solver'
import { usualWishes, wishesOf } from '../../core/order/wishes'
import { highsSolver } from '../orders/highs-solver'
import { madeUpMarket } from './bench-market'

const SIZE = { runs: 500, articles: 400, suppliers: 2, cables: 100, seed: 7 }
const LONG = { ...SIZE, runs: 2000 }
const SECONDS = 10
const GAP = 0.01

/** How a solved model stands: seconds, what it comes to, and what could still be saved, as a share. */
type Stood = { seconds: number; measure: number; gap: number }

/**
 * Deciding an order for a market that is made up from a seed: as Hallway does, beside the same wishes written plainly (one row that ties all users of an
 * article to it), and beside what somebody does by hand, who takes for each run what is cheapest for it alone.
 */
export async function benchOrder() {
  const solve = highsSolver(await loadHighs())
  const { wanting, market } = madeUpMarket(SIZE)
  const { model } = orderModel(wanting, market, usualWishes)
  const ours = stood(solve, model, SECONDS)
  const plain = stood(solve, plainly(model), SECONDS)
  const cheapest = stood(solve, orderModel(wanting, market, wishesOf('cheapest', usualWishes)).model, SECONDS)
  const long = madeUpMarket(LONG)
  const large = stood(solve, orderModel(long.wanting, long.market, usualWishes).model, 60)
  return { size: SIZE, ours, plain, cheapest, byHand: byHand(wanting, market), large }
}

function stood(solve: Solver, model: Model, seconds: number): Stood {
  const started = performance.now()
  const solved = solve(model, { gap: GAP, seconds })
  return { seconds: (performance.now() - started) / 1000, ...told(solved) }
}

const told = (solved: Solved): Pick<Stood, 'measure' | 'gap'> =>
  solved.status === 'impossible'
    ? { measure: Number.NaN, gap: Number.NaN }
    : { measure: solved.objective, gap: gapOf(solved) }

/** The same model with all that use an article tied to it in one row, as one first writes it. */
function plainly({ columns, rows }: Model): Model {
  const users = new Map<number, (readonly [number, number])[]>()
  for (const { of, terms } of rows) {
    const [kept, user] = terms
    if (of === 'article' && kept && user) users.set(kept[0], [...(users.get(kept[0]) ?? []), user])
  }
  return {
    columns,
    rows: [
      ...rows.filter(({ of }) => of !== 'article'),
      ...[...users].map(([kept, terms]) => ({
        of: 'article' as const,
        least: 0,
        most: terms.length,
        terms: [[kept, terms.length] as const, ...terms],
      })),
    ],
  }
}

type Taken = { choice: Choice; price: number; source: Source | null }

/** What it comes to when each run takes what is cheapest for it alone, and leads of the drawer go to whoever comes first. */
function byHand(wanting: readonly WantingRun[], { articles, suppliers }: Market): number {
  const used = new Set<string>()
  const bought = new Map<Source, number>()
  const kept = new Set<string>()
  const cost = ({ choice, price }: Taken): number => price + costOf(choice, usualWishes)
  const open = (choice: Choice): Taken[] => {
    if (usedOnce(choice).some((id) => used.has(id))) return []
    const [key] = choice.articles
    const article = key === undefined ? undefined : articles.get(key)
    if (!article) return [{ choice, price: 0, source: null }]
    const there = article.sources.filter((source) => (bought.get(source) ?? 0) < (source.available ?? Number.MAX_VALUE))
    return there.map((source) => ({ choice, price: source.price + article.extra, source }))
  }
  let sum = 0
  for (const { choices } of wanting) {
    const [best] = choices.flatMap(open).sort((one, other) => cost(one) - cost(other))
    if (!best) continue
    sum += cost(best)
    for (const id of usedOnce(best.choice)) used.add(id)
    if (best.source) bought.set(best.source, (bought.get(best.source) ?? 0) + 1)
    for (const article of best.choice.articles) kept.add(article)
  }
  const delivery = suppliers.reduce((all, { id, delivery: price = 0, freeFrom = Number.MAX_VALUE }) => {
    const spent = [...bought].reduce(
      (goods, [source, count]) => goods + (source.supplier === id ? source.price * count : 0),
      0,
    )
    return all + (spent === 0 || spent >= freeFrom ? 0 : price)
  }, 0)
  return sum + delivery + kept.size * usualWishes.perArticle
}
