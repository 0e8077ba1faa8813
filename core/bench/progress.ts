import type { Session } from '../plan/session'
import type { SiteIndex } from '../plan/site-index'
import { readingsOf } from './matrix'
import { type BenchOrder, orderBench, type Underway } from './order'
import { fitsTest, type Setup, setupsFor, soakOf } from './setup'

/** How far a session has come, and what is to be done next. */
export type SessionProgress = { order: BenchOrder; read: number; total: number }

/** A soak that runs, as it is kept: which cable in which test, and for how long already. */
export type Soaking = { cable: string; test: string; seconds: number }

/**
 * What a session still has to do, in the order with the fewest plugs, with the soaks that run taken as they stand. A cable that was retired on
 * the way needs no more tests, nor does one a test that it does not fit.
 */
export function sessionProgress(index: SiteIndex, session: Session, soaking: readonly Soaking[]): SessionProgress {
  let read = 0
  let total = 0
  const cables = session.cables.flatMap((id) => {
    const cable = index.cables.get(id)
    if (!cable) return []
    const readings = readingsOf(session, cable)
    const fitting = session.tests.filter((test) => fitsTest(index, cable, test))
    const done = fitting.filter((test) => readings.has(test.id)).length
    read += done
    if (cable.standing === 'retired') {
      total += done
      return []
    }
    total += fitting.length
    return [{ id, setups: setupsFor(index, session.tests, cable, (test) => readings.has(test.id)) }]
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
