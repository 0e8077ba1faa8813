import type { Metres } from '../quantity/length'
import type { WantingRun } from './choices'
import type { Model } from './model'

/** How many runs the best so many articles serve at most. */
export type Coverage = {
  articles: readonly { article: string; runs: readonly string[] }[]
  /** Runs that one of them serves. */
  covered: number
  /** Of so many runs. */
  of: number
}

export type CoverageModel = { model: Model; articles: readonly string[]; runs: readonly string[] }

/** Which so many articles serve the most runs, each by itself: as a model that is made as small as it can be. */
export function coverageModel(
  wanting: readonly WantingRun[],
  without: ReadonlySet<string>,
  most: number,
): CoverageModel {
  const columns: Model['columns'][number][] = []
  const rows: Model['rows'][number][] = []
  const articles = [...alone(wanting, without)]
  const columnOf = new Map(articles.map((article) => [article, columns.push({ cost: 0, most: 1, whole: true }) - 1]))
  rows.push({ of: 'article', least: 0, most, terms: [...columnOf.values()].map((at) => [at, 1]) })
  const runs: string[] = []
  for (const { run, choices } of wanting) {
    const serving = new Set(choices.flatMap((choice) => columnOf.get(onlyArticle(choice) ?? '') ?? []))
    if (serving.size === 0) continue
    runs.push(run)
    const covered = columns.push({ cost: -1, most: 1, whole: true }) - 1
    rows.push({
      of: 'run',
      least: 0,
      most: serving.size,
      terms: [...[...serving].map((at) => [at, 1] as const), [covered, -1]],
    })
  }
  return { model: { columns, rows }, articles, runs }
}

const onlyArticle = ({ articles, cables, setUp }: WantingRun['choices'][number]): string | undefined =>
  articles.length === 1 && cables.length === 0 && !setUp ? articles[0] : undefined

/** Articles that serve some run by themselves, of kinds that may be bought. */
function alone(wanting: readonly WantingRun[], without: ReadonlySet<string>): Set<string> {
  return new Set(
    wanting.flatMap(({ choices }) =>
      choices.flatMap((choice) => {
        const article = onlyArticle(choice)
        return article === undefined || without.has(article) ? [] : [article]
      }),
    ),
  )
}

/** What the columns of a solved model say: each run goes to the first of the articles that serves it. */
export function readCoverage(
  { articles }: CoverageModel,
  values: ArrayLike<number>,
  wanting: readonly WantingRun[],
): Coverage {
  const kept = articles.filter((_, at) => (values[at] ?? 0) > 0.5)
  const of = new Map(kept.map((article) => [article, [] as string[]]))
  for (const { run, choices } of wanting) {
    const serves = new Set(choices.map(onlyArticle))
    const article = kept.find((each) => serves.has(each))
    if (article !== undefined) of.get(article)?.push(run)
  }
  const told = [...of].flatMap(([article, runs]) => (runs.length > 0 ? [{ article, runs }] : []))
  return {
    articles: told.sort((one, other) => other.runs.length - one.runs.length),
    covered: told.reduce((sum, { runs }) => sum + runs.length, 0),
    of: wanting.length,
  }
}

/** How much longer an article is than the routes it serves, on the whole: what the fewest sorts give up. */
export const givenUp = (length: Metres, routes: readonly Metres[]): Metres =>
  routes.reduce((sum, route) => sum + Math.max(0, length - route), 0)
