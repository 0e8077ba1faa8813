import { severity } from '../checks/finding'
import type { Policy } from '../vocabulary/policy'
import { buysFirst, type Offer } from './offers'
import type { Candidate } from './rank'

/** What could lie in a run: a cable of the drawer, or one that is to be bought. */
export type Choice = ({ from: 'drawer' } & Candidate) | ({ from: 'shop' } & Offer)

/**
 * Drawer and catalogue as one list, best first: what does it before what just does; of these the drawer's, which cost nothing, in their own order, and then
 * what is to be bought, in the order in which this site buys.
 */
export function together(candidates: readonly Candidate[], offers: readonly Offer[], policy: Policy): Choice[] {
  const choices: Choice[] = [
    ...candidates.map((candidate): Choice => ({ from: 'drawer', ...candidate })),
    ...offers.map((offer): Choice => ({ from: 'shop', ...offer })),
  ]
  const place = new Map(choices.map((choice, at) => [choice, at]))
  const bought = buysFirst(policy)
  const byPrice = (one: Choice, other: Choice): number =>
    one.from === 'shop' && other.from === 'shop'
      ? one.record - other.record || bought(one, other)
      : Number(one.from === 'shop') - Number(other.from === 'shop')
  return choices.sort(
    (one, other) =>
      severity[one.verdict.grade] - severity[other.verdict.grade] ||
      byPrice(one, other) ||
      (place.get(one) ?? 0) - (place.get(other) ?? 0),
  )
}

/** The one that does it for the least money, which may lie in the drawer. */
export function cheapestClear(choices: readonly Choice[]): Choice | undefined {
  const costs = (choice: Choice): number => (choice.from === 'drawer' ? 0 : (choice.price ?? Number.MAX_VALUE))
  const clear = choices.filter(({ verdict }) => verdict.grade === 'clear')
  const least = Math.min(...clear.map(costs))
  return clear.find((choice) => costs(choice) === least)
}
