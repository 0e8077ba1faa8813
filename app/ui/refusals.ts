/** Why a proposal was not taken, as the address it goes back to says it. */
export const REFUSALS = ['none', 'late', 'unfit', 'away'] as const
export type Refusal = (typeof REFUSALS)[number]
