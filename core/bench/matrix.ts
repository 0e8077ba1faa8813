import type { Cable, Evidence } from '../plan/cable'
import type { BenchTest, Session } from '../plan/session'
import type { SiteIndex } from '../plan/site-index'
import { gradeReading, type ReadingGrade } from './grade-reading'
import { type Prediction, predict } from './predict'
import { type Recommendation, recommend } from './recommend'

/** One cable in one test: what it should do, what was read last, and what was read before that. */
export type Cell = {
  test: BenchTest
  prediction: Prediction
  reading: Evidence | null
  earlier: readonly Evidence[]
  grade: ReadingGrade | null
}

export type MatrixRow = { cable: Cable; cells: Cell[]; recommendation: Recommendation }

/** Readings of one session on one cable, by test, oldest first: evidence that names them. */
export function readingsOf(session: Session, cable: Cable): ReadonlyMap<string, Evidence[]> {
  const byTest = new Map<string, Evidence[]>()
  for (const piece of cable.evidence) {
    if (!('session' in piece) || piece.session !== session.id || piece.test === undefined) continue
    const list = byTest.get(piece.test)
    if (list) list.push(piece)
    else byTest.set(piece.test, [piece])
  }
  return byTest
}

/** The table of a session: every cable through every test, and what each cable is good for after it. */
export function sessionMatrix(index: SiteIndex, session: Session): MatrixRow[] {
  return session.cables.flatMap((id) => {
    const cable = index.cables.get(id)
    if (!cable) return []
    const readings = readingsOf(session, cable)
    const cells = session.tests.map((test): Cell => {
      const prediction = predict(index, test, cable)
      const list = readings.get(test.id) ?? []
      const reading = list.at(-1) ?? null
      return {
        test,
        prediction,
        reading,
        earlier: list.slice(0, -1),
        grade: reading && gradeReading(prediction, reading),
      }
    })
    return [{ cable, cells, recommendation: recommend(index, cable, cells) }]
  })
}
