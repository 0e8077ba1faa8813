import type { Plan } from '../plan/plan'
import type { SiteIndex } from '../plan/site-index'
import { isBenchSoak, type Session } from '../vocabulary/session'
import { type SessionReadings, sessionMatrix } from './matrix'
import { type BenchOrder, orderBench, type Underway } from './order'
import { isRisky, leastAtStake } from './risk'
import { type Setup, setupsFor, soakOf } from './setup'

/** How far a session has come, and what is to be done next. */
export type SessionProgress = { order: BenchOrder; read: number; total: number }

/** A soak that runs: which cable in which test, and for how long already. */
export type Soaking = { cable: string; test: string; seconds: number }

/** The soaks that run in a session at a moment, the longest first. */
export const soaksOf = (plan: Pick<Plan, 'soaks'>, session: string, now: Date): Soaking[] =>
  plan.soaks
    .filter(isBenchSoak)
    .filter((soak) => soak.session === session)
    .map(({ cable, test, since }) => ({
      cable,
      test,
      seconds: Math.max(0, (now.getTime() - Date.parse(since)) / 1000),
    }))
    .sort((one, other) => other.seconds - one.seconds)

/**
 * What a session still has to do, in the order with the fewest plugs, with the soaks that run taken as they stand. A cable that is retired, or
 * has failed so that it will be, needs no more tests; nor does one a test that it does not fit, or copies where no link comes up. What may get hot comes
 * when all else is done, and goes into the equipment that matters least before anything else is asked of it.
 */
export function sessionProgress(
  index: SiteIndex,
  session: Session,
  readings: SessionReadings,
  soaking: readonly Soaking[],
): SessionProgress {
  let read = 0
  let total = 0
  const cables = sessionMatrix(index, session, readings).map(({ cable, cells, recommendation }) => {
    const done = new Set(cells.filter(({ reading }) => reading !== null).map(({ test }) => test.id))
    const over = cable.standing === 'retired' || recommendation.verdict === 'retire'
    const linkless = cells.some(({ reading }) => reading?.kind === 'trial' && reading.cameUp === null)
    const left = over
      ? []
      : session.tests.filter(({ id, kind }) => !done.has(id) && !(linkless && (kind === 'write' || kind === 'read')))
    const setups = setupsFor(index, left, cable, () => false)
    read += done.size
    total += done.size + setups.reduce((sum, { tests }) => sum + tests.length, 0)
    const last = isRisky(index, cable)
    const untried = last && done.size === 0 && soaking.every((soak) => soak.cable !== cable.id)
    const first = untried ? leastAtStake(index, setups) : null
    return { id: cable.id, last, setups: first ? [first] : setups }
  })
  const underway = soaking.flatMap(({ cable, test, seconds }): Underway[] => {
    const setup = cables.find(({ id }) => id === cable)?.setups.find(({ tests }) => tests.some(({ id }) => id === test))
    return setup ? [{ cable, setup, secondsLeft: Math.max(0, soakOf(setup) - seconds) }] : []
  })
  return { order: orderBench(cables, underway), read, total }
}

/** The setup a cable goes through next: the one the order names, or the first it has left. */
export function nextSetupOf(order: BenchOrder, cable: string): Setup | null {
  return order.steps.find((step) => step.cable === cable)?.setup ?? null
}
