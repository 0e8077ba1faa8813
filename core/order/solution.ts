import type { Source } from './articles'
import type { Choice } from './choices'
import type { Market, OrderModel } from './model'

/** So many of one article from one source, and the spares among them. */
export type Purchase = { article: string; source: Source; count: number; spare: number }

/** What an order comes to. */
export type OrderPlan = {
  /** What each run takes, by the run. */
  chosen: ReadonlyMap<string, Choice>
  purchases: readonly Purchase[]
  /** Delivery that is paid, by supplier. */
  deliveries: ReadonlyMap<string, number>
  /** In money: articles, spares and delivery. */
  cost: number
  /** By the wishes it was decided by, without spares: what the solver made as small as it could. */
  measure: number
  /** Articles to buy, each once. */
  articles: number
  /** Runs that are only tight, and runs that take a risk. */
  tight: readonly string[]
  risky: readonly string[]
  unserved: readonly string[]
}

/** The value above which a column of nought or one is taken for one; solvers come near. */
const ON = 0.5

/** What the columns of a solved model say, with spares of each article: `share` of those that are bought, and one at least; null: none. */
export function readOrder(
  { model, meanings, unserved }: OrderModel,
  values: ArrayLike<number>,
  market: Market,
  share: number | null,
): OrderPlan {
  const chosen = new Map<string, Choice>()
  const bought: { article: string; source: Source; count: number }[] = []
  const left: string[] = []
  let measure = 0
  for (const [at, meaning] of meanings.entries()) {
    const value = values[at] ?? 0
    measure += value * (model.columns[at]?.cost ?? 0)
    if (meaning.is === 'left' && value > ON) left.push(meaning.run)
    if (meaning.is === 'choice' && value > ON) chosen.set(meaning.choice.run, meaning.choice)
    if (meaning.is === 'bought' && Math.round(value) > 0)
      bought.push({ article: meaning.article, source: meaning.source, count: Math.round(value) })
  }
  const purchases = withSpares(bought, share)
  const deliveries = deliveriesOf(purchases, market)
  const taken = [...chosen.values()]
  const goods =
    purchases.reduce(
      (sum, { article, source, count }) => sum + (source.price + (market.articles.get(article)?.extra ?? 0)) * count,
      0,
    ) + taken.reduce((sum, { setUp }) => sum + (setUp?.price ?? 0), 0)
  return {
    chosen,
    purchases,
    deliveries,
    cost: goods + [...deliveries.values()].reduce((sum, price) => sum + price, 0),
    measure,
    articles: new Set(purchases.map(({ article }) => article)).size,
    tight: taken.flatMap(({ run, grade }) => (grade === 'tight' ? [run] : [])),
    risky: taken.flatMap(({ run, risks }) => (risks.length > 0 ? [run] : [])),
    unserved: [...unserved, ...left],
  }
}

/** Spares of each article, from the first source that has enough of it: one at least, as one that fails on the day cannot wait (common practice). */
function withSpares(bought: readonly Omit<Purchase, 'spare'>[], share: number | null): Purchase[] {
  const wanted = new Map<string, number>()
  for (const { article, count } of bought) wanted.set(article, (wanted.get(article) ?? 0) + count)
  const missing = new Map(
    [...wanted].map(([article, count]) => [article, share === null ? 0 : Math.max(1, Math.ceil(count * share - 1e-9))]),
  )
  return bought.map(({ article, source, count }) => {
    const room = source.available === null ? Number.POSITIVE_INFINITY : source.available - count
    const spare = Math.min(missing.get(article) ?? 0, Math.max(0, room))
    missing.set(article, (missing.get(article) ?? 0) - spare)
    return { article, source, count: count + spare, spare }
  })
}

function deliveriesOf(purchases: readonly Purchase[], { suppliers }: Market): Map<string, number> {
  const worth = new Map<string, number>()
  for (const { source, count } of purchases)
    if (source.supplier !== null) worth.set(source.supplier, (worth.get(source.supplier) ?? 0) + source.price * count)
  return new Map(
    suppliers.flatMap(({ id, delivery, freeFrom }) => {
      const spent = worth.get(id)
      if (spent === undefined || !delivery) return []
      return [[id, freeFrom !== undefined && spent >= freeFrom ? 0 : delivery] as const]
    }),
  )
}
