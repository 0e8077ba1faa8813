import type { WantingRun } from './choices'
import { type Contradiction, relaxed } from './contradiction'
import { type Coverage, coverageModel, readCoverage } from './coverage'
import { coverModel, orderOfArticles } from './fewest'
import { type Market, type OrderModel, orderModel } from './model'
import { type OrderPlan, readOrder } from './solution'
import { type Effort, gapOf, type Solver } from './solver'
import { ABOVE_ALL, type OrderPlanName, type Wishes, wishesOf } from './wishes'

/** What is asked: how to serve these runs from this market by these wishes, as one of the plans. */
export type OrderQuestion = {
  wanting: readonly WantingRun[]
  market: Market
  wishes: Wishes
  /** Spares of each article as a share of it; null: none. */
  spares: number | null
  plan: OrderPlanName
  /** How near the best is near enough; left out: so near that nobody minds. */
  effort?: Effort
}

/** How far the decision is. `gap` is what a better answer could still save, as a share; null where nothing is known of it yet. */
export type Decision =
  | { state: 'better'; order: OrderPlan; gap: number | null }
  | { state: 'done'; order: OrderPlan; gap: number; seconds: number }
  | { state: 'impossible'; why: Contradiction; order: OrderPlan | null }

/** Good enough to be shown as the answer: within this share of the best there is. */
const NEAR_ENOUGH = 0.0005
/** What a plan may take before it is shown as it is, with the gap that is left. */
const SECONDS = 60

/** Decides an order. Each better answer is told as it is found; it blocks whoever calls it, so that is a worker. */
export function decide(
  solve: Solver,
  question: OrderQuestion,
  tell: (sofar: Decision) => void,
  effort: Effort = question.effort ?? { gap: NEAR_ENOUGH, seconds: SECONDS },
): Decision {
  const started = Date.now()
  const { wanting, market, spares, plan } = question
  const wishes = wishesOf(plan, question.wishes)
  const whole = orderModel(wanting, market, wishes)
  const model = plan === 'fewest' ? fewestOf(solve, question, whole, effort) : whole
  const read = (of: OrderModel, values: ArrayLike<number>): OrderPlan => readOrder(of, values, market, spares)
  const solved = solve(model.model, effort, ({ values, objective, bound }) =>
    tell({
      state: 'better',
      order: read(model, values),
      gap: Number.isFinite(bound) ? gapOf({ objective, bound }) : null,
    }),
  )
  if (solved.status === 'impossible') return whyNot(solve, question, effort)
  return {
    state: 'done',
    order: read(model, solved.values),
    gap: gapOf(solved),
    seconds: (Date.now() - started) / 1000,
  }
}

/** The fewest articles there can be, and what is cheapest with these: where they are not to be had in such numbers, prices decide. */
function fewestOf(
  solve: Solver,
  { wanting, market, wishes }: OrderQuestion,
  whole: OrderModel,
  effort: Effort,
): OrderModel {
  const { model, articles } = coverModel(whole)
  const cover = solve(model, { ...effort, gap: 0 })
  if (cover.status === 'impossible') return whole
  const only = new Set(articles.filter((_, at) => (cover.values[at] ?? 0) > 0.5))
  const narrowed = orderOfArticles(wanting, market, wishes, only)
  return solve(narrowed.model, { gap: 0.5, seconds: 5 }).status === 'impossible' ? whole : narrowed
}

/** Which of the wishes stands against the others: the first that helps when it is left out, with what the order would be without it. */
function whyNot(solve: Solver, question: OrderQuestion, effort: Effort): Decision {
  const { wanting, market, spares, plan } = question
  for (const { without, wishes } of relaxed(question.wishes)) {
    const model = orderModel(wanting, market, {
      ...wishesOf(plan === 'fewest' ? 'cheapest' : plan, wishes),
      budget: wishes.budget,
    })
    const solved = solve(model.model, effort)
    if (solved.status !== 'impossible')
      return { state: 'impossible', why: without, order: readOrder(model, solved.values, market, spares) }
  }
  // there is not enough of something: as many runs as can be are served, and the others named
  const wishes = { ...wishesOf(plan === 'fewest' ? 'cheapest' : plan, question.wishes), perUnserved: ABOVE_ALL * 100 }
  const model = orderModel(wanting, market, wishes)
  const solved = solve(model.model, effort)
  const order = solved.status === 'impossible' ? null : readOrder(model, solved.values, market, spares)
  return { state: 'impossible', why: 'not enough of it', order }
}

/** What is asked: which so many articles serve the most of these runs. */
export type CoverageQuestion = {
  wanting: readonly WantingRun[]
  /** Articles that are not bought. */
  without: readonly string[]
  most: number
}

/** The most runs that so many articles serve. */
export function cover(solve: Solver, { wanting, without, most }: CoverageQuestion, effort: Effort = COVERED): Coverage {
  const asked = coverageModel(wanting, new Set(without), most)
  const solved = solve(asked.model, effort)
  return readCoverage(asked, solved.status === 'impossible' ? [] : solved.values, wanting)
}
const COVERED: Effort = { gap: 0, seconds: 20 }
