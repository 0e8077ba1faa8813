import type { Wishes } from './wishes'

/** A wish that stands against the others where nothing fits all of them. */
export type Contradiction = 'budget' | 'kept choices' | 'budget and kept choices' | 'not enough of it'

/** The wishes with fewer and fewer of them, each with what was in the way if that is what helps. */
export const relaxed = (wishes: Wishes): readonly { without: Contradiction; wishes: Wishes }[] => [
  ...(wishes.budget === null ? [] : [{ without: 'budget' as const, wishes: { ...wishes, budget: null } }]),
  ...(wishes.fixed.length === 0 ? [] : [{ without: 'kept choices' as const, wishes: { ...wishes, fixed: [] } }]),
  ...(wishes.budget === null || wishes.fixed.length === 0
    ? []
    : [{ without: 'budget and kept choices' as const, wishes: { ...wishes, budget: null, fixed: [] } }]),
]
