import type { DecidedLine, DecidedOrder } from '../change/changes/orders'
import { oddsWith } from '../link/estimate'
import { articleParts, type Source } from './articles'
import type { Choice, WantingRun } from './choices'
import { addDays, type Day } from './days'
import { WARN_DAYS } from './follow'
import type { Market } from './model'
import type { OrderPlan } from './solution'
import type { Wishes } from './wishes'

/** Samples that people buy of candidates for the hardest run, at most (common practice: two to seven). */
export const MOST_SAMPLES = 7

/** One kind that is tried on the hardest run. */
export type Sample = {
  kind: string
  /** What is bought to try: the article that serves the hardest run. */
  article: string
  price: number
  /** The odds that it holds, by what is known of its kind. */
  odds: number
  /** It goes back for its price where it does not hold. */
  back: boolean
  /** What all runs of the group cost with this kind, this sample among them. */
  group: number
}

/** Samples bought first for the hardest run; those of its kind wait for what comes of it. */
export type TryFirst = {
  /** The run that the samples are tried on. */
  run: string
  /** The runs that follow it: each can take every kind that is tried. */
  group: readonly string[]
  /** In the order in which they would be kept: the one that costs least for the group first. */
  samples: readonly Sample[]
  /** The odds that none of them holds. */
  none: number
  /** What is paid on the average: samples that cannot go back, and what the group is then bought as. */
  expected: number
  /** What the group costs where none holds: the surest that there is for each. */
  fallback: number
  /** What the group costs on the average where the cheapest is bought for all of it at once, without trying. */
  untried: number
}

/** The odds that a kind holds: by all that was tried, beside what is thought of one that nobody knows. */
export const oddsOf = ({ likely }: Pick<Choice, 'likely'>, holds: number): number =>
  likely ? oddsWith(likely, holds) : holds

/**
 * Whether to buy samples first. The hardest run is the one that fewest known choices serve; candidates are its kinds that are not known to fail. Of one sample
 * up to seven, as many are bought as make the expected cost least. Null where nothing has to be tried: every run takes something known, or a lone run does.
 */
export function tryFirst(
  wanting: readonly WantingRun[],
  order: OrderPlan,
  market: Market,
  wishes: Wishes,
): TryFirst | null {
  const risky = wanting.filter(({ run }) => {
    const chosen = order.chosen.get(run)
    return chosen && chosen.articles.length > 0 && chosen.risks.includes('no record')
  })
  const hardest = [...risky].sort((one, other) => known(one).length - known(other).length)[0]
  if (!hardest) return null
  const candidates = kindsOf(hardest, market, wishes)
  const group = risky.filter((other) =>
    [...candidates.keys()].every((kind) => kindsOf(other, market, wishes).has(kind)),
  )
  if (candidates.size === 0) return null
  const grouped = new Set(group.map(({ run }) => run))
  const of = (kind: string): number =>
    group.reduce((sum, run) => sum + (kindsOf(run, market, wishes).get(kind)?.price ?? 0), 0)
  const all = [...candidates]
    .map(
      ([kind, { article, price, choice, back }]): Sample => ({
        kind,
        article,
        price,
        back,
        odds: oddsOf(choice, wishes.holds),
        group: of(kind),
      }),
    )
    .sort((one, other) => one.group - other.group)
  const taken = new Set([...order.chosen.values()].flatMap(({ run, cables }) => (grouped.has(run) ? [] : cables)))
  const fallback = group.reduce((sum, run) => sum + surest(run, taken, market, wishes), 0)
  const some = all.slice(0, MOST_SAMPLES).map((_, at) => reckoned(all.slice(0, at + 1), fallback))
  const best = some.reduce((least, next) => (next.expected < least.expected ? next : least))
  const [first] = all as [Sample]
  const lostAll = first.back ? 0 : first.group
  return {
    run: hardest.run,
    group: group.map(({ run }) => run),
    ...best,
    fallback,
    untried: first.odds * first.group + (1 - first.odds) * (lostAll + fallback),
  }
}

/** What so many samples come to on the average: the first that holds is bought for the group, and the others go back where they may. */
function reckoned(samples: readonly Sample[], fallback: number): Pick<TryFirst, 'samples' | 'none' | 'expected'> {
  const lost = samples.reduce((sum, { back, price }) => sum + (back ? 0 : price), 0)
  let none = 1
  let expected = 0
  for (const { odds, group, back, price } of samples) {
    expected += none * odds * (group + lost - (back ? 0 : price))
    none *= 1 - odds
  }
  return { samples, none, expected: expected + none * (fallback + lost) }
}

const known = ({ choices }: WantingRun): Choice[] =>
  choices.filter(({ risks }) => !risks.includes('no record') && !risks.includes('bad record'))

/** Days to deliver and to send back that are reckoned with where nobody says (a judgement of ours). */
const USUAL_DAYS = { lead: 7, back: 14 }

/**
 * An order with its samples bought first. The runs of the group wait for the kind that would be kept first; everything else is bought as it was decided. The
 * samples are decided on before they must go back.
 */
export function withSamples(
  order: OrderPlan,
  { group, samples }: TryFirst,
  wanting: readonly WantingRun[],
  market: Market,
  wishes: Wishes,
  today: Day,
): DecidedOrder {
  const grouped = new Set(group)
  const runOf = new Map(wanting.map((each) => [each.run, each]))
  const [first] = samples
  const waiting = group.flatMap((run) => {
    const each = runOf.get(run)
    const kept = each && first && kindsOf(each, market, wishes).get(first.kind)
    return kept ? [{ run, ...kept }] : []
  })
  const used = countOf(group.flatMap((run) => order.chosen.get(run)?.articles ?? []))
  // the sample of the kind that is kept serves the hardest run
  const bulk = countOf(waiting.map(({ article }) => article))
  if (first) bulk.set(first.article, (bulk.get(first.article) ?? 1) - 1)
  const left = order.purchases.flatMap(({ article, source, count, spare }): DecidedLine[] => {
    const fewer = Math.min(used.get(article) ?? 0, count - spare)
    used.set(article, (used.get(article) ?? 0) - fewer)
    const rest = count - fewer - (count - spare === fewer ? spare : 0)
    return rest > 0 ? [lineOf(article, source, rest)] : []
  })
  const cheapest = (article: string): Source | null => cheapestOf(article, market, wishes)
  return {
    runs: [
      ...[...order.chosen.values()].flatMap(({ run, leads }) => (grouped.has(run) ? [] : [{ run, leads }])),
      ...waiting.map(({ run, choice }) => ({ run, leads: choice.leads })),
    ],
    alters: [...order.chosen.values()].flatMap(({ run, setUp }) => (grouped.has(run) ? [] : (setUp?.edits ?? []))),
    lines: [
      ...left,
      ...samples.flatMap(({ article }): DecidedLine[] => {
        const source = cheapest(article)
        if (!source) return []
        const days =
          (source.leadDays ?? USUAL_DAYS.lead) + Math.max(1, (source.returnDays || USUAL_DAYS.back) - WARN_DAYS)
        return [{ ...lineOf(article, source, 1), part: 'try', decide: addDays(today, days) }]
      }),
      ...[...bulk].flatMap(([article, count]): DecidedLine[] => {
        const source = cheapest(article)
        return source && count > 0 ? [{ ...lineOf(article, source, count), part: 'after' }] : []
      }),
    ],
  }
}

const lineOf = (article: string, { supplier, price }: Source, count: number): DecidedLine => ({
  ...articleParts(article),
  supplier,
  count,
  price,
})

function countOf(keys: readonly string[]): Map<string, number> {
  const counts = new Map<string, number>()
  for (const key of keys) counts.set(key, (counts.get(key) ?? 0) + 1)
  return counts
}

type Priced = { article: string; price: number; choice: Choice; back: boolean }

/** The cheapest article of each kind that serves a run by itself and is not known to fail. */
function kindsOf({ choices }: WantingRun, market: Market, wishes: Wishes): Map<string, Priced> {
  const kinds = new Map<string, Priced>()
  for (const choice of choices) {
    const [article, ...more] = choice.articles
    if (article === undefined || more.length > 0 || choice.cables.length > 0 || choice.setUp) continue
    if (choice.risks.includes('bad record')) continue
    const { kind } = articleParts(article)
    const price = wishes.withoutKinds.includes(kind) ? null : priceOf(article, market, wishes)
    if (price === null || (kinds.get(kind)?.price ?? Number.POSITIVE_INFINITY) <= price) continue
    const back = !choice.risks.some((risk) => risk === 'no returns' || risk === 'not for this socket')
    kinds.set(kind, { article, price, choice, back })
  }
  return kinds
}

/** What an article costs with its parts, from the cheapest that has it in time. */
function priceOf(article: string, market: Market, wishes: Wishes): number | null {
  const source = cheapestOf(article, market, wishes)
  return source && source.price + (market.articles.get(article)?.extra ?? 0)
}

function cheapestOf(article: string, { articles }: Market, { withinDays }: Wishes): Source | null {
  const sources = (articles.get(article)?.sources ?? []).filter(
    ({ leadDays }) => withinDays === null || (leadDays !== null && leadDays <= withinDays),
  )
  return [...sources].sort((one, other) => one.price - other.price)[0] ?? null
}

/** What a run costs by what is known to hold and no other run takes; where nothing is, by its dearest lead: whoever is sure of nothing reckons with the worst. */
function surest(wanting: WantingRun, taken: ReadonlySet<string>, market: Market, wishes: Wishes): number {
  const sure = known(wanting).flatMap(({ articles, cables, setUp }) => {
    if (cables.some((cable) => taken.has(cable))) return []
    const prices = articles.map((article) => priceOf(article, market, wishes))
    return prices.some((price) => price === null)
      ? []
      : [prices.reduce<number>((sum, price) => sum + (price ?? 0), setUp?.price ?? 0)]
  })
  if (sure.length > 0) return Math.min(...sure)
  return Math.max(0, ...[...kindsOf(wanting, market, wishes).values()].map(({ price }) => price))
}
