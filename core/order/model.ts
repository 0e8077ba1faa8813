import type { Supplier } from '../vocabulary/order'
import type { Article, Source } from './articles'
import type { Choice, WantingRun } from './choices'
import type { Wishes } from './wishes'

/** A linear model some of whose columns are whole numbers, to be made as small as it can be: what any solver takes. Columns are at least 0. */
export type Model = {
  columns: readonly { cost: number; most: number; whole: boolean }[]
  rows: readonly {
    /** What it holds: each run is served, a cable lies once, and so on. */
    of: 'run' | 'cable' | 'article' | 'purchase' | 'delivery' | 'budget'
    least: number
    most: number
    terms: readonly (readonly [column: number, factor: number])[]
  }[]
}

/** What each column of a model means. */
export type Meaning =
  | { is: 'left'; run: string }
  | { is: 'choice'; choice: Choice }
  | { is: 'article'; article: string }
  | { is: 'bought'; article: string; source: Source; at: number }
  | { is: 'order'; supplier: string }
  | { is: 'free delivery'; supplier: string }

export type OrderModel = {
  model: Model
  meanings: readonly Meaning[]
  /** Runs that nothing can serve by these wishes: they are left out, and told. */
  unserved: readonly string[]
}

export type Market = { articles: ReadonlyMap<string, Article>; suppliers: readonly Supplier[] }

/**
 * The order of a whole site as a mixed-integer model. Each run takes one choice, a cable of the drawer lies in one run, what the choices need is bought from
 * somebody who has it, and a supplier is paid for delivery where anything comes from there.
 */
export function orderModel(wanting: readonly WantingRun[], market: Market, wishes: Wishes): OrderModel {
  const columns: Model['columns'][number][] = []
  const rows: Model['rows'][number][] = []
  const meanings: Meaning[] = []
  const add = (meaning: Meaning, column: Model['columns'][number]): number => {
    meanings.push(meaning)
    return columns.push(column) - 1
  }
  const without = new Set(wishes.withoutKinds)
  const sources = new Map(
    [...market.articles].map(([key, article]) => [
      key,
      without.has(article.kind.id) ? [] : article.sources.filter((source) => inTime(source, wishes)),
    ]),
  )
  const fixed = new Set(wishes.fixed)
  const unserved: string[] = []
  const paid: [number, number][] = []
  const usersOfOnce = new Map<string, number[]>()
  const usersOfArticle = new Map<string, [number, number][]>()
  for (const { run, choices } of wanting) {
    const kept = choices.filter(({ id }) => fixed.has(id))
    const open = (kept.length > 0 ? kept : choices).filter(({ articles }) =>
      articles.every((article) => (sources.get(article)?.length ?? 0) > 0),
    )
    if (open.length === 0) {
      unserved.push(run)
      continue
    }
    const mine = open.map((choice) => {
      const at = add({ is: 'choice', choice }, { cost: costOf(choice, wishes), most: 1, whole: true })
      for (const once of usedOnce(choice)) usersOfOnce.set(once, [...(usersOfOnce.get(once) ?? []), at])
      if (choice.setUp && choice.setUp.price > 0) paid.push([at, choice.setUp.price])
      for (const [article, count] of counted(choice.articles)) {
        const users = usersOfArticle.get(article)
        if (users) users.push([at, count])
        else usersOfArticle.set(article, [[at, count]])
      }
      return at
    })
    if (wishes.perUnserved !== null)
      mine.push(add({ is: 'left', run }, { cost: wishes.perUnserved, most: 1, whole: true }))
    rows.push({ of: 'run', least: 1, most: 1, terms: mine.map((at) => [at, 1]) })
  }
  for (const users of usersOfOnce.values())
    if (users.length > 1) rows.push({ of: 'cable', least: 0, most: 1, terms: users.map((at) => [at, 1]) })
  const fromSupplier = new Map<string, { at: number; most: number; price: number }[]>()
  for (const [article, users] of usersOfArticle) {
    const most = users.reduce((sum, [, count]) => sum + count, 0)
    const kept = add({ is: 'article', article }, { cost: wishes.perArticle, most: 1, whole: true })
    // row by row, which lets a solver see far better than one row for all
    for (const [at] of users)
      rows.push({
        of: 'article',
        least: 0,
        most: 1,
        terms: [
          [kept, 1],
          [at, -1],
        ],
      })
    const bought = (sources.get(article) ?? []).map((source, at) => {
      const room = Math.min(most, source.available ?? most)
      const each = source.price + (market.articles.get(article)?.extra ?? 0)
      const column = add({ is: 'bought', article, source, at }, { cost: each, most: room, whole: true })
      paid.push([column, each])
      if (source.supplier !== null)
        fromSupplier.set(source.supplier, [
          ...(fromSupplier.get(source.supplier) ?? []),
          { at: column, most: room, price: source.price },
        ])
      return column
    })
    rows.push({
      of: 'purchase',
      least: 0,
      most: 0,
      terms: [...bought.map((at) => [at, 1] as const), ...users.map(([at, count]) => [at, -count] as const)],
    })
  }
  for (const { id, delivery, freeFrom } of market.suppliers) {
    const lines = fromSupplier.get(id)
    if (!lines || !delivery) continue
    const order = add({ is: 'order', supplier: id }, { cost: delivery, most: 1, whole: true })
    paid.push([order, delivery])
    // an order from a certain worth on is sent for nothing
    const free =
      freeFrom === undefined ? null : add({ is: 'free delivery', supplier: id }, { cost: 0, most: 1, whole: true })
    for (const { at, most } of lines)
      rows.push({
        of: 'delivery',
        least: 0,
        most: most,
        terms: [[order, most], ...(free === null ? [] : [[free, most] as const]), [at, -1]],
      })
    if (free !== null && freeFrom !== undefined) {
      const worth = lines.reduce((sum, { most, price }) => sum + most * price, 0)
      rows.push({
        of: 'delivery',
        least: 0,
        most: Math.max(worth, freeFrom),
        terms: [...lines.map(({ at, price }) => [at, price] as const), [free, -freeFrom]],
      })
    }
  }
  if (wishes.budget !== null) rows.push({ of: 'budget', least: 0, most: wishes.budget, terms: paid })
  return { model: { columns, rows }, meanings, unserved }
}

/** What only one choice of all may take: a cable of the drawer, and whatever is set up or changed beside the leads. */
export const usedOnce = ({ cables, setUp }: Choice): string[] => [
  ...cables,
  ...(setUp?.edits ?? []).map(({ list, id }) => `${list}/${id}`),
]

/** It is here in time, as far as anybody promises. */
const inTime = ({ leadDays }: Source, { withinDays }: Wishes): boolean =>
  withinDays === null || (leadDays !== null && leadDays <= withinDays)

/** What a choice costs beside the articles that are bought for it. */
export function costOf({ grade, leads, risks, setUp }: Choice, { perTight, perJoint, perRisk }: Wishes): number {
  const joints = Math.max(0, leads.length - 1) * perJoint
  return (
    (setUp?.price ?? 0) +
    (grade === 'tight' ? perTight : 0) +
    joints +
    risks.reduce((sum, risk) => sum + perRisk[risk], 0)
  )
}

function counted(keys: readonly string[]): Map<string, number> {
  const counts = new Map<string, number>()
  for (const key of keys) counts.set(key, (counts.get(key) ?? 0) + 1)
  return counts
}
