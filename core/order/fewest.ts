import type { WantingRun } from './choices'
import { type Market, type Model, type OrderModel, orderModel } from './model'
import type { Wishes } from './wishes'

/**
 * The smallest set of articles that serves every run, as a model of its own: whether an article is kept is all that is asked, and a solver proves it far sooner
 * than together with prices.
 */
export function coverModel({ meanings, model }: OrderModel): { model: Model; articles: readonly string[] } {
  const columns: Model['columns'][number][] = []
  const articles: string[] = []
  const columnOf = new Map<string, number>()
  for (const meaning of meanings)
    if (meaning.is === 'article') {
      columnOf.set(meaning.article, columns.push({ cost: 1, most: 1, whole: true }) - 1)
      articles.push(meaning.article)
    }
  const rows: Model['rows'][number][] = []
  const free = new Map<number, number>()
  const columnAt = (at: number): number => {
    const found = free.get(at) ?? columns.push({ cost: 0, most: 1, whole: true }) - 1
    free.set(at, found)
    return found
  }
  for (const row of model.rows) {
    if (row.of !== 'run') continue
    const terms = new Map<number, number>()
    for (const [at] of row.terms) {
      const meaning = meanings[at]
      if (meaning?.is !== 'choice') continue
      const [article, ...others] = new Set(meaning.choice.articles)
      const only = article === undefined || others.length > 0 ? undefined : columnOf.get(article)
      const column = only === undefined || meaning.choice.cables.length > 0 ? columnAt(at) : only
      terms.set(column, 1)
      // what takes more than one thing is open where each of them is there
      if (column !== only)
        for (const needed of new Set(meaning.choice.articles)) {
          const kept = columnOf.get(needed)
          if (kept !== undefined)
            rows.push({
              of: 'article',
              least: 0,
              most: 1,
              terms: [
                [kept, 1],
                [column, -1],
              ],
            })
        }
    }
    rows.push({ of: row.of, least: 1, most: Number.POSITIVE_INFINITY, terms: [...terms] })
  }
  for (const row of model.rows) {
    if (row.of !== 'cable') continue
    rows.push({ of: row.of, least: 0, most: 1, terms: row.terms.map(([at]) => [columnAt(at), 1]) })
  }
  return { model: { columns, rows }, articles }
}

/** The order when only some articles are bought. */
export function orderOfArticles(
  wanting: readonly WantingRun[],
  market: Market,
  wishes: Wishes,
  only: ReadonlySet<string>,
): OrderModel {
  const articles = new Map([...market.articles].filter(([key]) => only.has(key)))
  return orderModel(wanting, { ...market, articles }, wishes)
}
