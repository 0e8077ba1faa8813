import type { Observation } from '../../observe/observation'
import type { Plan } from '../../plan/plan'
import type { Instant } from '../../vocabulary/fields'
import { isBenchSoak, type Session, type Soak } from '../../vocabulary/session'
import type { ChangeToMake, Edit, LogPosition } from '../change'

export const beginSession = (session: Session): ChangeToMake => ({
  what: { name: 'begin session', about: [session.name] },
  edits: [{ list: 'sessions', id: session.id, base: null, value: session }],
})

/** Deletes a session with the soaks that run in it. What was read stays: it is observed of the cables. */
export const endSession = (plan: Plan, base: LogPosition, session: Session): ChangeToMake => ({
  what: { name: 'end session', about: [session.name] },
  edits: [{ list: 'sessions', id: session.id, base, value: null }, ...soaksGone(plan, base, session)],
})

const soaksGone = (
  plan: Plan,
  base: LogPosition,
  session: Session,
  cable?: string,
  tests?: ReadonlySet<string>,
): Edit[] =>
  plan.soaks
    .filter(isBenchSoak)
    .filter(
      (soak) =>
        soak.session === session.id &&
        (cable === undefined || soak.cable === cable) &&
        (tests === undefined || tests.has(soak.test)),
    )
    .map(({ id }) => ({ list: 'soaks', id, base, value: null }))

const tagOf = (plan: Plan, cable: string): string => plan.cables.find(({ id }) => id === cable)?.tag ?? cable

/** Lets a cable soak in a test from a moment on; started anew where it soaked already. */
export function startSoak(
  plan: Plan,
  base: LogPosition,
  session: Session,
  { cable, test, since, id }: { cable: string; test: string; since: Instant; id: string },
): ChangeToMake {
  const running = plan.soaks.filter(isBenchSoak).find((soak) => soak.session === session.id && soak.cable === cable)
  const value: Soak = { id: running?.id ?? id, session: session.id, test, cable, since }
  return {
    what: { name: 'start soak', about: [tagOf(plan, cable), session.name] },
    edits: [{ list: 'soaks', id: value.id, base: running ? base : null, value }],
  }
}

/** Calls a soak off without a reading. */
export const stopSoak = (plan: Plan, base: LogPosition, session: Session, cable: string): ChangeToMake => ({
  what: { name: 'stop soak', about: [tagOf(plan, cable), session.name] },
  edits: soaksGone(plan, base, session, cable),
})

/** Writes down what was read of one cable; the soaks that were read with it are over. */
export function takeReadings(
  plan: Plan,
  base: LogPosition,
  session: Session,
  cable: string,
  readings: readonly Observation[],
): ChangeToMake {
  const tests = new Set(readings.flatMap(({ test }) => test ?? []))
  return {
    what: { name: 'take readings', about: [tagOf(plan, cable), session.name] },
    edits: [
      ...readings.map((value): Edit => ({ list: 'observations', id: value.id, base: null, value })),
      ...soaksGone(plan, base, session, cable, tests),
    ],
  }
}
