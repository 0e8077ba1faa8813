import type { Tried } from '../observe/observation'
import type { BenchTest } from '../vocabulary/session'
import type { ReadingGrade } from './grade-reading'
import type { Prediction } from './predict'

/** One cable in one test: what it should do, what was read last, and what was read before that. */
export type Cell = {
  test: BenchTest
  prediction: Prediction
  reading: Tried | null
  earlier: readonly Tried[]
  grade: ReadingGrade | null
}
