import { asksOf } from '../link/asks'
import { countedOf } from '../observe/counted'
import { observationsOf } from '../observe/learned'
import { isTried, type Tried } from '../observe/observation'
import type { Plan } from '../plan/plan'
import type { SiteIndex } from '../plan/site-index'
import type { Cable } from '../vocabulary/cable'
import type { Session } from '../vocabulary/session'
import { cameOfTest } from './came-of-test'
import type { Cell } from './cell'
import { predict } from './predict'
import { type Recommendation, recommend } from './recommend'

export type MatrixRow = { cable: Cable; cells: Cell[]; recommendation: Recommendation }

/** Readings of a session that count, by cable and test, oldest first. */
export type SessionReadings = ReadonlyMap<string, ReadonlyMap<string, readonly Tried[]>>

/** What was read in a session. Retracted readings are left out; simulated ones stay, as the session shows them. */
export function readingsOf(session: Session, plan: Plan): SessionReadings {
  const byCable = new Map<string, Map<string, Tried[]>>()
  for (const cable of session.cables) {
    const byTest = new Map<string, Tried[]>()
    for (const piece of countedOf(observationsOf(plan, { cable }), true)) {
      if (!isTried(piece) || piece.session !== session.id || piece.test === undefined) continue
      byTest.set(piece.test, [...(byTest.get(piece.test) ?? []), piece])
    }
    if (byTest.size > 0) byCable.set(cable, byTest)
  }
  return byCable
}

/** The table of a session: every cable through every test, and what each cable is good for after it. */
export function sessionMatrix(index: SiteIndex, session: Session, read: SessionReadings): MatrixRow[] {
  return session.cables.flatMap((id) => {
    const cable = index.cables.get(id)
    if (!cable) return []
    const readings = read.get(id)
    const cells = session.tests.map((test): Cell => {
      const prediction = predict(index, test, cable)
      const list = readings?.get(test.id) ?? []
      const reading = list.at(-1) ?? null
      return {
        test,
        prediction,
        reading,
        earlier: list.slice(0, -1),
        ...cameOfTest(prediction, list, asksOf(index.plan.policy)),
      }
    })
    return [{ cable, cells, recommendation: recommend(index, cable, cells) }]
  })
}
