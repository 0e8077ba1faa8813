import type { Model } from './model'

/** How far a solver is: the best it has found, and what no answer can be better than. */
export type Progress = { values: Float64Array; objective: number; bound: number }
export type Solved =
  | ({ status: 'proved' | 'near enough' | 'out of time' } & Progress)
  /** No answer fits all that is wished. */
  | { status: 'impossible' }

/** When a solver may stop: within this share of the best there can be, or after so long. */
export type Effort = { gap: number; seconds: number }

/** What is left between an answer and the best that there can be, as a share of the answer. */
export const gapOf = ({ objective, bound }: Pick<Progress, 'objective' | 'bound'>): number =>
  Math.max(0, objective - bound) / Math.max(1e-9, Math.abs(objective))

/**
 * Makes a model as small as it can be. Each better answer is told as it is found. It works until it is done: whoever wants to stop it ends the worker that it
 * runs in.
 */
export type Solver = (model: Model, effort: Effort, tell?: (better: Progress) => void) => Solved
