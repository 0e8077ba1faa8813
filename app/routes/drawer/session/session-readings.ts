import { readingsOf, type SessionReadings } from '../../../../core/bench/matrix'
import type { Tried } from '../../../../core/observe/observation'
import type { Plan } from '../../../../core/plan/plan'
import type { Session } from '../../../../core/vocabulary/session'

/** The readings of a session as they travel: by cable, by test. */
export type WrittenReadings = [string, [string, Tried[]][]][]

export const writtenReadings = (plan: Plan, session: Session): WrittenReadings =>
  [...readingsOf(session, plan)].map(([cable, byTest]) => [cable, [...byTest].map(([test, read]) => [test, [...read]])])

export const readWritten = (written: WrittenReadings): SessionReadings =>
  new Map(written.map(([cable, byTest]) => [cable, new Map(byTest)]))
