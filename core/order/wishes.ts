import type { Risk } from './choices'

/** What an order is decided by, all of it in the currency of the site, so that each thing has its price. */
export type Wishes = {
  /** What each different article costs beside its price: a spare more to keep, a drawer more to sort. */
  perArticle: number
  /** What a run that is only tight costs. */
  perTight: number
  /** What each lead after the first in one run costs: a joint more to come loose. */
  perJoint: number
  /** What each risk costs, once for each run that takes it. */
  perRisk: Readonly<Record<Risk, number>>
  /** What a run costs that is left as it is, though something could serve it; null: none is left. */
  perUnserved: number | null
  /** Everything is here so many days after it was ordered; null: whenever it comes. What nobody promises a day for is then left out. */
  withinDays: number | null
  /** It costs no more than this, delivery included; null: whatever it costs. */
  budget: number | null
  /** Kinds that are not bought. */
  withoutKinds: readonly string[]
  /** The odds that a kind holds of which nothing is known: what a trial is worth follows from it. */
  holds: number
  /** Choices that are kept whatever comes of it, by their ids. */
  fixed: readonly string[]
}

/** What risk is worth until a site says otherwise (a judgement of ours, no figure of the trade): a lead that is known to fail costs more than most leads. */
const RISK_PRICE: Wishes['perRisk'] = {
  'no record': 4,
  'bad record': 60,
  'no returns': 3,
  'returns not known': 2,
  'not for this socket': 3,
  'stiff in the hand': 5,
  'parts without a price': 10,
}

export const usualWishes: Wishes = {
  perArticle: 8,
  perTight: 15,
  perJoint: 6,
  perRisk: RISK_PRICE,
  perUnserved: null,
  withinDays: null,
  budget: null,
  withoutKinds: [],
  holds: 0.7,
  fixed: [],
}

/** The plans that people argue about, each the best by its own measure. */
export const ORDER_PLANS = ['balanced', 'cheapest', 'fewest', 'surest'] as const
export type OrderPlanName = (typeof ORDER_PLANS)[number]

/** More than any price of an article: first the one, and only then the other. */
export const ABOVE_ALL = 10_000
/** Less than any price: it decides between what costs the same. */
const BELOW_ALL = 0.001

const scaled = (by: number): Wishes['perRisk'] =>
  Object.fromEntries(Object.entries(RISK_PRICE).map(([risk, price]) => [risk, price * by])) as Wishes['perRisk']

/** The wishes of a site as each plan weighs them. */
export function wishesOf(name: OrderPlanName, wishes: Wishes): Wishes {
  switch (name) {
    case 'balanced':
      return wishes
    case 'cheapest':
      return { ...wishes, perArticle: BELOW_ALL, perTight: BELOW_ALL, perJoint: BELOW_ALL, perRisk: scaled(BELOW_ALL) }
    case 'fewest':
      return { ...wishes, perArticle: ABOVE_ALL }
    case 'surest':
      return {
        ...wishes,
        perTight: ABOVE_ALL,
        perJoint: wishes.perJoint * 10,
        perRisk: scaled(ABOVE_ALL / RISK_PRICE['returns not known']),
      }
  }
}
