import type { Tried } from '../observe/observation'
import type { BenchTest } from '../vocabulary/session'
import type { ReadingGrade } from './grade-reading'
import type { Prediction } from './predict'

/** One cable in one test: what it should do, what was read last, what was read before that, and what all of it comes to. */
export type Cell = {
  test: BenchTest
  prediction: Prediction
  reading: Tried | null
  earlier: readonly Tried[]
  grade: ReadingGrade | null
  /** The last reading that was less than it should be, as long as that is not cleared. */
  failing: Tried | null
  /** It did both, and what failed is not cleared: how often it held, and how often it failed. */
  goes: { held: number; failed: number } | null
}
