import { severity } from '../checks/finding'
import type { Offer } from './offers'
import type { Candidate } from './rank'

/** What could lie in a run: a cable of the drawer, or one that is to be bought. */
export type Choice = ({ from: 'drawer' } & Candidate) | ({ from: 'shop' } & Offer)

/**
 * Drawer and catalogue as one list, best first: what does it before what just does; of these the drawer's, which cost nothing, in their own order, and then
 * what is to be bought, the cheapest first and what has no price last.
 */
export function together(candidates: readonly Candidate[], offers: readonly Offer[]): Choice[] {
  const choices: Choice[] = [
    ...candidates.map((candidate): Choice => ({ from: 'drawer', ...candidate })),
    ...offers.map((offer): Choice => ({ from: 'shop', ...offer })),
  ]
  const place = new Map(choices.map((choice, at) => [choice, at]))
  const price = (choice: Choice): number => (choice.from === 'drawer' ? -1 : (choice.price ?? Number.MAX_VALUE))
  return choices.sort(
    (one, other) =>
      severity[one.verdict.grade] - severity[other.verdict.grade] ||
      price(one) - price(other) ||
      (place.get(one) ?? 0) - (place.get(other) ?? 0),
  )
}
